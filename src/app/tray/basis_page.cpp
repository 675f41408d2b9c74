// Place 1, Basis: standard, units, materials, covers, limits, bars, national parameters.
#include <QVBoxLayout>

#include "tray/basis_tables.h"
#include "tray/table.h"
#include "tray/tray.h"
#include "widgets/text.h"

namespace talvik::app {
namespace {

using units::Kind;

QString joined(const std::vector<std::string>& all) {
    QStringList list;
    for (const auto& s : all) list << qs(s);
    return list.join(QLatin1Char(' '));
}

class BasisPage final : public TrayPage {
  public:
    explicit BasisPage(Session& session) : TrayPage(session, tr("Basis of design")) {
        setObjectName(QStringLiteral("basisPage"));
        auto basis = [this]() -> const model::Basis& { return session_.project().basis; };
        choice(
            tr("Standard"), "standard",
            [] {
                QStringList all;
                for (const auto& id : standards::standardIds()) all << qs(standards::standardTitle(id));
                return all;
            },
            [=] { return qs(standards::standardTitle(basis().standard)); },
            basisValue([](model::Basis& b, const QString& title) {
                for (const auto& id : standards::standardIds())
                    if (qs(standards::standardTitle(id)) == title && id != b.standard)
                        b.standard = id, b.parameters.clear();
            }));
        choice(
            tr("Units shown"), "units",
            [] {
                return QStringList{tr("metric"), tr("US customary")};
            },
            [=] { return basis().units == units::System::Metric ? tr("metric") : tr("US customary"); },
            basisValue([](model::Basis& b, const QString& text) {
                b.units = text == tr("metric") ? units::System::Metric : units::System::UsCustomary;
            }));
        heading(tr("Materials"));
        choice(
            tr("Concrete"), "concrete",
            [] {
                QStringList all;
                for (const auto& c : catalogs::concreteClasses()) all << qs(c.id);
                return all;
            },
            [=] { return qs(basis().concrete); }, basisValue([](model::Basis& b, const QString& id) {
                for (const auto& c : catalogs::concreteClasses())
                    if (qs(c.id) == id) b.concrete = c.id, b.concreteStrength = c.strength;
            }));
        quantity(
            tr("Strength f_ck, f'c"), Kind::Stress, "concreteStrength",
            [=] { return basis().concreteStrength; }, basisValue([](model::Basis& b, double v) {
                b.concreteStrength = v, b.concrete = "own concrete";
            }));
        quantity(
            tr("Density"), Kind::Density, "concreteDensity", [=] { return basis().concreteDensity; },
            basisValue([](model::Basis& b, double v) { b.concreteDensity = v; }));
        choice(
            tr("Reinforcement"), "steel",
            [] {
                QStringList all;
                for (const auto& s : catalogs::steelGrades()) all << qs(s.id);
                return all;
            },
            [=] { return qs(basis().steel); }, basisValue([](model::Basis& b, const QString& id) {
                for (const auto& s : catalogs::steelGrades())
                    if (qs(s.id) == id) b.steel = s.id, b.steelYield = s.yield;
            }));
        quantity(
            tr("Yield strength"), Kind::Stress, "steelYield", [=] { return basis().steelYield; },
            basisValue([](model::Basis& b, double v) { b.steelYield = v, b.steel = "own steel"; }));
        quantity(
            tr("Largest aggregate"), Kind::Length, "aggregate", [=] { return basis().aggregate; },
            basisValue([](model::Basis& b, double v) { b.aggregate = v; }));
        quantity(
            tr("Creep coefficient"), Kind::None, "creep", [=] { return basis().creep; },
            basisValue([](model::Basis& b, double v) { b.creep = v; }));
        quantity(
            tr("Shrinkage strain"), Kind::Strain, "shrinkage", [=] { return basis().shrinkage; },
            basisValue([](model::Basis& b, double v) { b.shrinkage = v; }));
        heading(tr("Cover and crack width"));
        choice(
            tr("Exposure class"), "surroundings",
            [this] {
                QStringList all;
                for (const auto& c : catalogs::coverSets())
                    if (session_.design().standard && c.family == session_.design().standard->family)
                        all << qs(c.id);
                return all;
            },
            [this, basis] {
                const auto& b = basis();
                for (const auto& c : catalogs::coverSets())
                    if (session_.design().standard && c.family == session_.design().standard->family &&
                        c.cover == b.coverTop && c.cover == b.coverBottom)
                        return qs(c.id);
                return tr("own covers");
            },
            basisValue([](model::Basis& b, const QString& id) {
                for (const auto& c : catalogs::coverSets())
                    if (qs(c.id) == id) b.coverTop = b.coverBottom = c.cover;
            }));
        quantity(
            tr("Cover top"), Kind::Length, "coverTop", [=] { return basis().coverTop; },
            basisValue([](model::Basis& b, double v) { b.coverTop = v; }));
        quantity(
            tr("Cover bottom"), Kind::Length, "coverBottom", [=] { return basis().coverBottom; },
            basisValue([](model::Basis& b, double v) { b.coverBottom = v; }));
        quantity(
            tr("Cover sides"), Kind::Length, "coverSide", [=] { return basis().coverSide; },
            basisValue([](model::Basis& b, double v) { b.coverSide = v; }));
        quantity(
            tr("Cover of foundations"), Kind::Length, "coverFoundation",
            [=] { return basis().coverFoundation; },
            basisValue([](model::Basis& b, double v) { b.coverFoundation = v; }));
        flag(
            tr("Apply minimum reinforcement"), "minimumSteel", [=] { return basis().minimumSteel; },
            basisValue([](model::Basis& b, bool on) { b.minimumSteel = on; }));
        using Steel = model::ConnectionChoice::Steel;
        const QStringList kinds{tr("none"), tr("studs on rails"), tr("links")};
        choice(
            tr("Shear reinforcement"), QStringLiteral("basisShearSteel"), [kinds] { return kinds; },
            [basis, kinds] {
                const auto s = basis().shearSteel;
                return kinds[s == Steel::Studs ? 1 : s == Steel::Links ? 2 : 0];
            },
            basisValue([kinds](model::Basis& b, const QString& text) {
                b.shearSteel = text == kinds[1]   ? Steel::Studs
                               : text == kinds[2] ? Steel::Links
                                                  : Steel::None;
            }));
        quantity(
            tr("Crack width limit top"), Kind::Crack, "crackTop", [=] { return basis().crackLimitTop; },
            basisValue([](model::Basis& b, double v) { b.crackLimitTop = v; }));
        quantity(
            tr("Crack width limit bottom"), Kind::Crack, "crackBottom",
            [=] { return basis().crackLimitBottom; },
            basisValue([](model::Basis& b, double v) { b.crackLimitBottom = v; }));
        heading(tr("Bars allowed"));
        choice(
            tr("Catalogue"), "barCatalog",
            [] {
                QStringList all;
                for (const auto& c : catalogs::barCatalogs()) all << qs(c.id);
                return all;
            },
            [=] { return qs(basis().barCatalog); },
            [this](const QString& id) { return withCatalog(id.toStdString()); });
        line(
            tr("Main bars"), "mainBars", [=] { return joined(basis().mainBars); },
            bars(&model::Basis::mainBars));
        line(
            tr("Distribution"), "secondaryBars", [=] { return joined(basis().secondaryBars); },
            bars(&model::Basis::secondaryBars));
        quantity(
            tr("Minimum spacing"), Kind::BarSpacing, "spacingLeast", [=] { return basis().spacingLeast; },
            basisValue([](model::Basis& b, double v) { b.spacingLeast = v; }));
        quantity(
            tr("Maximum spacing"), Kind::BarSpacing, "spacingMost", [=] { return basis().spacingMost; },
            basisValue([](model::Basis& b, double v) { b.spacingMost = v; }));
        quantity(
            tr("Spacing increment"), Kind::BarSpacing, "spacingStep", [=] { return basis().spacingStep; },
            basisValue([](model::Basis& b, double v) { b.spacingStep = v; }));
        quantity(
            tr("Stock length"), Kind::Span, "stockLength", [=] { return basis().stockLength; },
            basisValue([](model::Basis& b, double v) { b.stockLength = v; }));
        quantity(
            tr("Bar lengths in steps of"), Kind::Length, "lengthStep", [=] { return basis().lengthStep; },
            basisValue([](model::Basis& b, double v) { b.lengthStep = v; }));
        sentence([] {
            return tr(
                "At skew and curved edges bar lengths go in these increments; 0 leaves the increment to the "
                "program.");
        });
        heading(tr("Parameters of the standard"));
        sentence([] {
            return tr(
                "Recommended values; a value changed here is kept with the project and listed in the "
                "report.");
        });
        table_ = new TrayTable({tr("Parameter"), tr("Value"), tr("Clause")}, {0, 54, 112}, {});
        table_->setObjectName(QStringLiteral("parameters"));
        table_->setReadOnly({0, 2});
        connect(table_, &TrayTable::edited, this, [this](int row, int, const QString& text) {
            setParameter(static_cast<std::size_t>(row), text);
        });
        column_->addWidget(table_);
        tables_ = new BasisTables(session_);
        connect(tables_, &BasisTables::refused, this, &TrayPage::refused);
        column_->addWidget(tables_);
        column_->addStretch();
    }

    void refresh() override {
        refreshFields();
        std::vector<QStringList> rows;
        if (session_.design().standard)
            for (const auto& p : parameters()) {
                auto own = session_.project().basis.parameters.find(p.key);
                bool changed = own != session_.project().basis.parameters.end();
                rows.push_back({qs(p.key + (changed ? " (own)" : "")),
                                qs(units::plain(changed ? own->second : p.value)), qs(p.clause)});
            }
        table_->show(rows);
        tables_->refresh();
        QSignalBlocker quiet(table_);
        for (std::size_t i = 0; i < rows.size(); ++i)
            for (int c = 0; c < 3; ++c)
                table_->item(static_cast<int>(i), c)
                    ->setToolTip(qs(parameters()[i].meaning + ", " + parameters()[i].clause));
    }

  private:
    const std::vector<catalogs::Parameter>& parameters() const {
        return catalogs::parameterSet(session_.design().standard->parameterFile).parameters;
    }

    void setParameter(std::size_t row, const QString& text) {
        const auto& p = parameters()[row];
        auto parsed = units::evaluate(text.toStdString());
        if (!parsed.value || *parsed.value < p.low || *parsed.value > p.high) {
            emit refused(
                tr("%1, %2, must be a number from %3 to %4.")
                    .arg(qs(p.key), qs(p.meaning), qs(units::plain(p.low)), qs(units::plain(p.high))));
            return refresh();
        }
        model::Project next = session_.base();
        if (*parsed.value == p.value)
            next.basis.parameters.erase(p.key);
        else
            next.basis.parameters[p.key] = *parsed.value;
        session_.apply(qs(p.key), std::move(next));
    }

    std::function<std::pair<model::Project, QString>(const QString&)> bars(
        std::vector<std::string> model::Basis::*list) {
        return [this, list](const QString& text) -> std::pair<model::Project, QString> {
            model::Project next = session_.base();
            std::vector<std::string> names;
            for (const QString& word : QString(text)
                                           .replace(QLatin1Char(','), QLatin1Char(' '))
                                           .simplified()
                                           .split(QLatin1Char(' '), Qt::SkipEmptyParts))
                names.push_back(word.toStdString());
            const auto* catalog = catalogs::barCatalog(next.basis.barCatalog);
            for (const auto& n : names)
                if (!catalog->find(n))
                    return {next, tr("\"%1\" is not in the catalogue %2.").arg(qs(n), qs(catalog->title))};
            next.basis.*list = names;
            return {next, names.empty() ? tr("At least one bar size must be allowed.") : QString()};
        };
    }

    // Another catalogue: allowed bars and those that someone fixed go to the size nearest in diameter.
    model::Project withCatalog(const std::string& id) {
        model::Project next = session_.base();
        const auto *from = catalogs::barCatalog(next.basis.barCatalog), *to = catalogs::barCatalog(id);
        auto nearest = [&](const std::string& name) {
            double d = from->find(name)->diameter;
            const catalogs::Bar* best = &to->bars.front();
            for (const auto& b : to->bars)
                if (std::abs(b.diameter - d) < std::abs(best->diameter - d)) best = &b;
            return best->name;
        };
        for (auto* list : {&next.basis.mainBars, &next.basis.secondaryBars, &next.basis.linkBars}) {
            std::vector<std::string> names;
            for (const auto& n : *list)
                if (auto other = nearest(n); std::find(names.begin(), names.end(), other) == names.end())
                    names.push_back(other);
            *list = names;
        }
        next.basis.barCatalog = id;
        auto change = [&](const model::Id& element) {
            next = model::editBars(next, element, [&](auto& bars, model::Project&) {
                for (auto& run : bars) run.bar = nearest(run.bar);
            });
        };
        for (const auto& s : session_.project().slabs) change(s->id);
        for (const auto& f : session_.project().floors) change(f->id);
        return next;
    }

    TrayTable* table_;
    BasisTables* tables_;
};

}  // namespace

TrayPage* basisPage(Session& session) {
    return new BasisPage(session);
}

}  // namespace talvik::app

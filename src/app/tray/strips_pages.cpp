// Place 4, Strips: what the strip of a one-way slab is; the rules by which strips of floors are laid and
// designed.
#include <QVBoxLayout>

#include "tray/table.h"
#include "tray/tray.h"
#include "widgets/text.h"

namespace talvik::app {
namespace {

using units::Kind;
using R = model::StripChoices;
using Answer = std::pair<model::Project, QString>;

class SlabStripPage final : public TrayPage {
  public:
    explicit SlabStripPage(Session& session) : TrayPage(session, tr("Strips")) {
        sentence([this] {
            const auto* slab = session_.slab();
            const auto* d = session_.slabDesign();
            if (!slab || !d || !d->error.empty()) return QString();
            return tr("This slab spans one way over parallel supports. It is one strip of its whole width, "
                      "%1, "
                      "designed per unit width.\n\n"
                      "Column strips, strips in a second direction and strips drawn by hand belong to "
                      "floors.")
                .arg(session_.text(slab->width, Kind::Span));
        });
        heading(tr("Spans of the strip"));
        table_ = new TrayTable({tr("Span"), tr("Length"), tr("Ends"), tr("Moment")}, {60, 62, 0, 64}, {});
        table_->setReadOnly({0, 1, 2, 3});
        connect(table_, &QTableWidget::currentCellChanged, this, [this](int row) {
            if (row >= 0 && table_->hasFocus() && row < static_cast<int>(session_.slab()->spans.size()))
                session_.select(Spot::In::Span, session_.slab()->spans[static_cast<std::size_t>(row)].id);
        });
        column_->addWidget(table_);
        sentence([] {
            return tr(
                "End conditions are found from the supports: both ends continuous, one, none, or a "
                "cantilever. They govern span-to-depth and curtailment.");
        });
        column_->addStretch();
    }
    void refresh() override {
        refreshFields();
        const auto* slab = session_.slab();
        const auto* d = session_.slabDesign();
        std::vector<QStringList> rows;
        for (std::size_t i = 0; i < slab->spans.size(); ++i) {
            bool left = i > 0, right = i + 1 < slab->spans.size();
            QString end = model::isCantilever(*slab, i) ? tr("cantilever")
                          : left && right               ? tr("continuous")
                          : left || right               ? tr("One end continuous")
                                                        : tr("simple");
            rows.push_back({qs(model::spanLabel(*slab, i)),
                            session_.number(slab->spans[i].length, Kind::Span), end,
                            d && i < d->line.spans.size()
                                ? session_.number(d->line.spans[i].moment, Kind::MomentPerWidth)
                                : QString()});
        }
        table_->setHeads({tr("Span"), head(tr("Length"), Kind::Span), tr("Ends"),
                          head(tr("Moment"), Kind::MomentPerWidth)});
        table_->show(rows);
    }

  private:
    TrayTable* table_;
};

class FloorStripsPage final : public TrayPage {
    StripDesk& strips_;

    const R& rules() const { return session_.floor()->strips.rules; }
    template <class F>
    auto rule(F change) {
        return floorValue([change](model::Floor& f, const auto& value) { change(f.strips.rules, value); });
    }
    void outer(const QString& label, const QString& name, int R::*member) {
        auto text = [](int direction) { return QString::fromUtf8(strips::directionName(direction)); };
        choice(
            label, name,
            [=] {
                return QStringList{text(0), text(1)};
            },
            [=, this] { return text(rules().*member); },
            rule([=](R& r, const QString& chosen) { r.*member = chosen == text(1); }));
    }

  public:
    explicit FloorStripsPage(const Desks& d)
        : TrayPage(d.session, tr("Rules of the strips")), strips_(d.strips) {
        setObjectName(QStringLiteral("stripRules"));
        const QString widths[] = {tr("column and middle strips"), tr("full, half-way to the neighbours")};
        choice(
            tr("Width"), QStringLiteral("stripWidth"),
            [=] {
                return QStringList{widths[0], widths[1]};
            },
            [=, this] { return widths[rules().width == R::Width::Full]; },
            rule([=](R& r, const QString& text) {
                r.width = text == widths[1] ? R::Width::Full : R::Width::ColumnAndMiddle;
            }));
        for (int way : {0, 1})
            flag(
                tr("Automatic strips %1").arg(QString::fromUtf8(strips::directionName(way))),
                QStringLiteral("stripsFound_%1").arg(way), [this, way] { return rules().automatic[way]; },
                rule([way](R& r, bool on) { r.automatic[way] = on; }));
        line(
            tr("Angles, °"), QStringLiteral("stripAngles"),
            [this] {
                auto angles = strips_.layout() ? strips_.layout()->angle : std::array<double, 2>{0, 90};
                return QStringLiteral("%1 %2").arg(angles[0]).arg(angles[1]);
            },
            [this](const QString& text) -> Answer {
                const auto words = text.simplified().split(QLatin1Char(' '), Qt::SkipEmptyParts);
                bool a = words.isEmpty(), b = words.isEmpty();
                const double x = words.value(0).toDouble(words.isEmpty() ? nullptr : &a),
                             y = words.value(1).toDouble(words.isEmpty() ? nullptr : &b);
                if (!a || !b)
                    return {session_.base(),
                            tr("Write two angles, such as 0 90; nothing for those of the grid.")};
                return {rule([=](R& r, const QString&) {
                            r.ownAngles = !words.isEmpty();
                            if (r.ownAngles) r.angle[0] = x, r.angle[1] = y;
                        })(text),
                        {}};
            },
            tr("those of the grid"));
        heading(tr("Forces"));
        flag(
            tr("Include twisting moments (Wood–Armer)"), QStringLiteral("twisting"),
            [this] { return rules().twisting == R::Twisting::WoodArmer; },
            rule([](R& r, bool on) { r.twisting = on ? R::Twisting::WoodArmer : R::Twisting::None; }));
        flag(
            tr("Moments at the face of supports"), QStringLiteral("faceOfSupport"),
            [this] { return rules().faceOfSupport; }, rule([](R& r, bool on) { r.faceOfSupport = on; }));
        flag(
            tr("Links where shear needs them"), QStringLiteral("shearLinks"),
            [this] { return rules().links; }, rule([](R& r, bool on) { r.links = on; }));
        line(
            tr("Redistribution, %"), QStringLiteral("redistribution"),
            [this] { return QString::number(100 * rules().redistribution); },
            [this](const QString& text) -> Answer {
                bool good = false;
                const double v = QString(text).remove(QLatin1Char('%')).trimmed().toDouble(&good);
                if (!good || v < 0 || v > 30)
                    return {session_.base(), tr("Write a share from 0 to 30 per cent; the checks judge it.")};
                return {rule([v](R& r, const QString&) { r.redistribution = v / 100; })(text), {}};
            });
        line(
            tr("Band width over columns"), QStringLiteral("peakWidth"),
            [this] {
                return rules().peakWidth > 0 ? session_.text(rules().peakWidth, Kind::Span) : QString();
            },
            [this](const QString& text) -> Answer {
                units::Parsed v{0.0, {}};
                if (!text.trimmed().isEmpty())
                    v = units::parse(text.toStdString(), Kind::Span, session_.project().basis.units);
                if (!v.value) return {session_.base(), qs(v.error)};
                return {rule([w = *v.value](R& r, const QString&) { r.peakWidth = w; })(text), {}};
            },
            tr("by the standard"));
        heading(tr("Outer layer"));
        outer(tr("Top"), QStringLiteral("outerTop"), &R::outerTop);
        outer(tr("Bottom"), QStringLiteral("outerBottom"), &R::outerBottom);
        column_->addStretch();
    }
    void refresh() override { refreshFields(); }
};

}  // namespace

TrayPage* slabStripPage(Session& session) {
    return new SlabStripPage(session);
}
TrayPage* floorStripsPage(const Desks& desks) {
    return new FloorStripsPage(desks);
}

}  // namespace talvik::app

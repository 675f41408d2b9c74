// Place 2, Layout: spans, supports, width and thickness of the slab in hand.
#include <QVBoxLayout>

#include "tray/table.h"
#include "tray/tray.h"
#include "widgets/text.h"

namespace talvik::app {
namespace {

using units::Kind;

class LayoutPage final : public TrayPage {
  public:
    explicit LayoutPage(Session& session) : TrayPage(session, tr("Layout")) {
        setObjectName(QStringLiteral("layoutPage"));
        auto slab = [this]() -> const model::OneWaySlab& { return *session_.slab(); };
        line(
            tr("Name"), "slabName", [=] { return qs(slab().name); },
            [this](const QString& text) -> std::pair<model::Project, QString> {
                return {slabValue([](model::OneWaySlab& s, const QString& name) {
                            s.name = name.trimmed().toStdString();
                        })(text),
                        text.trimmed().isEmpty() ? tr("A slab needs a name.") : QString()};
            });
        quantity(
            tr("Thickness"), Kind::Length, "thickness", [=] { return slab().thickness; },
            slabValue([](model::OneWaySlab& s, double v) { s.thickness = v; }));
        flag(
            tr("Keep this thickness when designing"), "thicknessPinned",
            [=] { return slab().thicknessPinned; },
            slabValue([](model::OneWaySlab& s, bool on) { s.thicknessPinned = on; }));
        flag(
            tr("Links where shear needs them"), "shearLinks", [=] { return slab().shearLinks; },
            slabValue([](model::OneWaySlab& s, bool on) { s.shearLinks = on; }));
        quantity(
            tr("Width"), Kind::Span, "width", [=] { return slab().width; },
            slabValue([](model::OneWaySlab& s, double v) { s.width = v; }));
        sentence([this] {
            const auto* d = session_.slabDesign();
            return d && d->error.empty()
                       ? tr("First thickness by span-to-depth: %1, span %2 governs.")
                             .arg(session_.text(d->firstThickness, Kind::Length),
                                  qs(model::spanLabel(*session_.slab(), d->firstThicknessSpan)))
                       : QString();
        });
        heading(tr("Spans"));
        line(
            tr("Lengths"), "spans",
            [this, slab] {
                std::vector<double> lengths;
                for (const auto& s : slab().spans) lengths.push_back(s.length);
                return qs(units::spacingList(lengths, Kind::Span, session_.project().basis.units));
            },
            [this](const QString& text) -> std::pair<model::Project, QString> {
                auto list =
                    units::parseSpacingList(text.toStdString(), Kind::Span, session_.project().basis.units);
                if (!list.error.empty()) return {session_.base(), qs(list.error)};
                return {
                    withSpans(list.values, session_.slab()->cantileverStart, session_.slab()->cantileverEnd),
                    QString()};
            });
        flag(
            tr("First span is a cantilever"), "cantileverStart", [=] { return slab().cantileverStart; },
            [this](bool on) { return withSpans(lengths(), on, session_.slab()->cantileverEnd); });
        flag(
            tr("Last span is a cantilever"), "cantileverEnd", [=] { return slab().cantileverEnd; },
            [this](bool on) { return withSpans(lengths(), session_.slab()->cantileverStart, on); });
        sentence([this] {
            return tr("Axis to axis, a cantilever to its tip, in %1. Lists such as 3@5.0 4.2 are understood. "
                      "On plan, double-click a span's figure.")
                .arg(session_.unit(Kind::Span));
        });
        heading(tr("Supports"));
        table_ = new TrayTable({tr("Axis"), tr("Kind"), tr("Width"), tr("Connection")}, {38, 68, 60, 0},
                               {{1, {tr("beam"), tr("wall")}}, {3, {tr("monolithic"), tr("simply supported")}}});
        table_->setObjectName(QStringLiteral("supports"));
        table_->setReadOnly({0});
        connect(table_, &TrayTable::edited, this, &LayoutPage::setSupport);
        column_->addWidget(table_);
        sentence([] {
            return tr(
                "Over a support cast monolithically with the slab, hogging moments are taken at its faces; "
                "over a simple support the peak is rounded. Select a row and type, or select supports on "
                "plan with the arrow keys.");
        });
        column_->addStretch();
    }

    void refresh() override {
        refreshFields();
        std::vector<QStringList> rows;
        const auto* slab = session_.slab();
        for (std::size_t i = 0; i < slab->supports.size(); ++i) {
            const auto& s = slab->supports[i];
            rows.push_back({qs(model::supportLabel(*slab, i)),
                            s.kind == model::Support::Kind::Beam ? tr("beam") : tr("wall"),
                            session_.number(s.width, Kind::Length),
                            s.monolithic ? tr("monolithic") : tr("simply supported")});
        }
        table_->setHeads({tr("Axis"), tr("Kind"), head(tr("Width"), Kind::Length), tr("Connection")});
        table_->show(rows);
    }

  private:
    std::vector<double> lengths() const {
        std::vector<double> all;
        for (const auto& s : session_.slab()->spans) all.push_back(s.length);
        return all;
    }
    model::Project withSpans(const std::vector<double>& all, bool start, bool end) const {
        return model::setSpans(session_.base(), session_.slab()->id, all, start, end);
    }

    void setSupport(int row, int column, const QString& text) {
        auto i = static_cast<std::size_t>(row);
        double width = 0;
        if (column == 2) {
            auto parsed = units::parse(text.toStdString(), Kind::Length, session_.project().basis.units);
            if (!parsed.value) {
                emit refused(qs(parsed.error));
                return refresh();
            }
            width = *parsed.value;
        }
        bool good = session_.apply(
            tr("Support %1").arg(qs(model::supportLabel(*session_.slab(), i))),
            model::editSlab(session_.base(), session_.slab()->id, [&](model::OneWaySlab& s, model::Project&) {
                if (column == 1)
                    s.supports[i].kind =
                        text == tr("beam") ? model::Support::Kind::Beam : model::Support::Kind::Wall;
                if (column == 2) s.supports[i].width = width;
                if (column == 3) s.supports[i].monolithic = text == tr("monolithic");
            }));
        if (!good) refresh();
    }

    TrayTable* table_;
};

}  // namespace

TrayPage* slabLayoutPage(Session& session) {
    return new LayoutPage(session);
}

}  // namespace talvik::app

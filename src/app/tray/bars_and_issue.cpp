// Places 6 and 7: Bars lists the runs of the line in hand; Issue fills the title block and writes what leaves
// the office.
#include <QPushButton>
#include <QVBoxLayout>

#include "tray/table.h"
#include "tray/tray.h"
#include "widgets/flow_layout.h"
#include "widgets/text.h"

namespace talvik::app {
namespace {

using units::Kind;

class BarsPage final : public TrayPage {
  public:
    BarsPage(Session& session, BarDesk& desk) : TrayPage(session, tr("Bars")), desk_(desk) {
        auto* buttons = new QWidget;
        auto* flow = new FlowLayout(4, buttons);
        flow->setContentsMargins(0, 0, 0, 0);
        auto add = [&](const QString& text, const QString& name, const QString& tip, auto call) {
            auto* b = button(text, name, [this, call] { (desk_.*call)(); });
            b->setToolTip(tip);
            flow->addWidget(b);
        };
        add(tr("Add run"), QStringLiteral("addRun"),
            tr("Another run of bars on the selected span's bottom, or over the selected support (A)"),
            &BarDesk::addRun);
        add(tr("Give back"), QStringLiteral("giveBack"),
            tr("Let the program choose the selected run again (Delete)"), &BarDesk::release);
        add(tr("Give all back"), QStringLiteral("giveAllBack"),
            tr("Let the program choose all bars of the element again (Ctrl+B)"), &BarDesk::releaseAll);
        column_->addWidget(buttons);
        table_ = new TrayTable({tr("Run"), tr("Bar"), tr("Spacing"), tr("From"), tr("To")},
                               {0, 46, 56, 54, 54}, {});
        table_->setObjectName(QStringLiteral("runs"));
        table_->setReadOnly({0});
        connect(table_, &TrayTable::edited, this, &BarsPage::setCell);
        connect(table_, &QTableWidget::currentCellChanged, this, [this](int row) {
            if (row >= 0 && table_->hasFocus() && row < int(shown_.size()))
                session_.select(Spot::In::Run, shown_[std::size_t(row)].id);
        });
        column_->addWidget(table_);
        sentence([this] {
            if (session_.floor() && !session_.line())
                return tr("No strip in hand: click one on the plan, or press the up arrow.");
            return tr(
                "The program chooses the bars at every change; a dot marks runs that an edit of yours has "
                "fixed. B1, B2: bottom, outer and inner layer; T1, T2: top. From and to are measured from "
                "the "
                "first axis.");
        });
        heading(tr("Schedule"));
        sentence([this] {
            if (!session_.answer() || !session_.answer()->error.empty()) return QString();
            QStringList lines;
            const auto schedule = session_.design().scheduleOf(*session_.answer());
            for (const auto& t : schedule.totals)
                lines << tr("%1: %2 bars, %3")
                             .arg(qs(t.bar))
                             .arg(t.number)
                             .arg(session_.text(t.mass, Kind::Mass));
            return lines.join(QLatin1Char('\n')) + tr("\nTogether %1 under %2 marks.")
                                                       .arg(session_.text(schedule.mass, Kind::Mass))
                                                       .arg(schedule.rows.size());
        });
        column_->addStretch();
    }

    void refresh() override {
        refreshFields();
        std::vector<QStringList> rows;
        int selected = -1;
        shown_.clear();
        if (const auto* d = session_.line()) {
            shown_ = d->runs;
            const auto across = d->crossing();
            shown_.insert(shown_.end(), across.begin(), across.end());
            std::stable_sort(shown_.begin(), shown_.end(), [](const auto& p, const auto& q) {
                return std::tuple(p.role, p.from) < std::tuple(q.role, q.from);
            });
            const auto& spans = d->view().line.spans;
            origin_ = spans.empty() ? d->view().line.from : spans.front().from;
            for (const auto& run : shown_) {
                if (run.id == session_.selectedId()) selected = int(rows.size());
                rows.push_back({name(run, *d), qs(run.bar), session_.number(run.spacing, Kind::BarSpacing),
                                session_.number(run.from - origin_, Kind::Span),
                                session_.number(run.to - origin_, Kind::Span)});
            }
        }
        table_->setHeads({tr("Run"), tr("Bar"), head(tr("Spacing"), Kind::BarSpacing),
                          head(tr("From"), Kind::Span), head(tr("To"), Kind::Span)});
        table_->show(rows);
        QSignalBlocker quiet(table_);
        if (selected >= 0)
            table_->selectRow(selected);
        else
            table_->clearSelection();
    }

  private:
    // Face and layer, the outer one first.
    static QString name(const bars::Run& run, const design::LineAnswer& line) {
        if (run.role == model::Role::EndU || run.role == model::Role::SideU)
            return (run.role == model::Role::EndU ? tr("U tip") : tr("U side")) + dot(run);
        const bool inner = ((run.top() ? line.outerTop : line.outerBottom) > 0) != model::across(run.role);
        return QStringLiteral("%1%2%3%4")
            .arg(run.top() ? tr("T") : tr("B"))
            .arg(inner ? 2 : 1)
            .arg(run.band() ? tr(" band") : QString(), dot(run));
    }
    static QString dot(const bars::Run& run) { return run.fixed ? QStringLiteral(" •") : QString(); }

    void setCell(int row, int column, const QString& text) {
        if (row >= int(shown_.size())) return;
        auto run = shown_[std::size_t(row)];
        const auto system = session_.project().basis.units;
        if (column == 1) {
            run.bar = text.trimmed().toStdString();
        } else {
            auto parsed =
                units::parse(text.toStdString(), column == 2 ? Kind::BarSpacing : Kind::Span, system);
            if (!parsed.value) {
                emit refused(qs(parsed.error));
                return refresh();
            }
            const double origin = column == 2 ? 0 : origin_;
            (column == 2 ? run.spacing : column == 3 ? run.from : run.to) = *parsed.value + origin;
        }
        if (!desk_.setRun(tr("Bars"), run)) refresh();
    }

    BarDesk& desk_;
    TrayTable* table_;
    std::vector<bars::Run> shown_;
    double origin_ = 0;  // of what is measured along the line
};

class IssuePage final : public TrayPage {
  public:
    IssuePage(Session& session, Tray& tray) : TrayPage(session, tr("Issue")) {
        auto text = [&](const QString& label, const QString& name, std::string model::IssueSheet::*member) {
            line(
                label, name, [this, member] { return qs(session_.project().sheet.*member); },
                [this, member](const QString& value) -> std::pair<model::Project, QString> {
                    model::Project next = session_.base();
                    next.sheet.*member = value.trimmed().toStdString();
                    return {next, QString()};
                });
        };
        line(
            tr("Project"), "projectName", [this] { return qs(session_.project().name); },
            [this](const QString& value) -> std::pair<model::Project, QString> {
                model::Project next = session_.base();
                next.name = value.trimmed().toStdString();
                return {next, value.trimmed().isEmpty() ? tr("A project needs a name.") : QString()};
            });
        text(tr("Drawing no."), "sheetNumber", &model::IssueSheet::number);
        text(tr("Revision"), "sheetRevision", &model::IssueSheet::revision);
        text(tr("Date"), "sheetDate", &model::IssueSheet::date);
        text(tr("Drawn"), "sheetAuthor", &model::IssueSheet::author);
        text(tr("Note"), "sheetNote", &model::IssueSheet::note);
        heading(tr("What leaves the office"));
        const std::pair<QString, QString> files[] = {
            {tr("Drawings: DXF, PDF, SVG…"), QStringLiteral("drawing")},
            {tr("Bar schedule: CSV, XLSX, ABS…"), QStringLiteral("schedule")},
            {tr("Calculation report: PDF, HTML…"), QStringLiteral("report")},
            {tr("All of these…"), QStringLiteral("all")},
            {tr("Print the drawings…"), QStringLiteral("print")}};
        for (const auto& [label, what] : files)
            column_->addWidget(button(label, QStringLiteral("export_") + what,
                                      [&tray, what = what] { emit tray.exportWanted(what); }));
        sentence([this] {
            auto sum = session_.design().summary();
            return sum.over ? tr("%1 checks are over their limits: the drawing carries a warning, not for "
                                 "construction.")
                                  .arg(sum.over)
                            : tr("No check is over its limit. %1 matters are not checked and are named on "
                                 "the drawing.")
                                  .arg(sum.notChecked);
        });
        column_->addStretch();
    }
    void refresh() override { refreshFields(); }
};

}  // namespace

TrayPage* barsPage(Session& session, BarDesk& desk) {
    return new BarsPage(session, desk);
}
TrayPage* issuePage(Session& session, Tray& tray) {
    return new IssuePage(session, tray);
}

}  // namespace talvik::app

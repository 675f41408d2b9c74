// Places 6 and 7: Bars lists the runs of the line in hand; Issue fills the title block and writes what leaves
// the office.
#include <QListWidget>
#include <QPushButton>
#include <QVBoxLayout>

#include "design/economy.h"
#include "design/revisions.h"
#include "report/issue_page.h"
#include "tray/table.h"
#include "tray/tray.h"
#include "widgets/flow_layout.h"
#include "widgets/text.h"
#include "widgets/theme.h"

namespace talvik::app {
namespace {

using units::Kind;

class BarsPage final : public TrayPage {
  public:
    BarsPage(Session& session, BarDesk& desk, Tray& tray) : TrayPage(session, tr("Bars")), desk_(desk) {
        auto* buttons = new QWidget;
        auto* flow = new FlowLayout(4, buttons);
        flow->setContentsMargins(0, 0, 0, 0);
        auto add = [&](const QString& text, const QString& name, const QString& tip, auto call) {
            auto* b = button(text, name, [this, call] { (desk_.*call)(); });
            b->setToolTip(tip);
            flow->addWidget(b);
        };
        add(tr("Add bars"), QStringLiteral("addRun"),
            tr("Adds a bar set at the bottom of the selected span, or over the selected support (A)"),
            &BarDesk::addRun);
        add(tr("Divide"), QStringLiteral("divideRun"),
            tr("Two bar sets in place of the selected one, lapped at the station line, or in the middle"),
            &BarDesk::splitInMiddle);
        add(tr("Join"), QStringLiteral("joinRuns"),
            tr("One bar set in place of the selected one and the next in its face"), &BarDesk::joinRuns);
        add(tr("Reset"), QStringLiteral("giveBack"), tr("Reset the selected bar set to automatic (Delete)"),
            &BarDesk::release);
        add(tr("Reset all"), QStringLiteral("giveAllBack"),
            tr("Reset all bars of the element to automatic (Ctrl+B)"), &BarDesk::releaseAll);
        column_->addWidget(buttons);
        table_ = new TrayTable({tr("Bar set"), tr("Bar"), tr("Spacing"), tr("From"), tr("To")},
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
                return tr("No strip is selected: click one on the plan, or press the up arrow.");
            return tr(
                "The program chooses the bars at every change; • = edited by hand. B1, B2: bottom, outer and "
                "inner layer; T1, T2: top. From and to are measured from the first axis.");
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
            return lines.join(QLatin1Char('\n')) + tr("\nTotal %1 under %2 marks.")
                                                       .arg(session_.text(schedule.mass, Kind::Mass))
                                                       .arg(schedule.rows.size());
        });
        auto* economy = button(tr("Optimise reinforcement…"), QStringLiteral("economy"),
                               [&tray] { emit tray.economyWanted(); });
        economy->setToolTip(
            tr("Looks for bars and spacings at minimum cost in the whole element; those found are fixed "
               "(Ctrl+Shift+E)"));
        column_->addWidget(economy);
        sentence([this] {
            const auto& r = session_.project().basis.rates;
            const QString money = qs(r.currency);
            if (!session_.answer() || !session_.answer()->error.empty()) return QString();
            const auto c = design::layoutCost(*session_.answer(), session_.project().basis);
            return tr("Cost basis: steel including offcuts %1 %2 per kg, each bar mark %3 %2, each bar fixed "
                      "%4 %2 (rates of the basis). At present: %5 offcuts, %6 marks, %7 bars, %8 %2.")
                .arg(qs(units::plain(r.steel.price)), money, qs(units::plain(r.mark.price)),
                     qs(units::plain(r.piece.price)), session_.text(c.waste, Kind::Mass))
                .arg(c.marks)
                .arg(c.pieces)
                .arg(qs(units::plain(std::round(c.price), 8)));
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
        table_->setHeads({tr("Bar set"), tr("Bar"), head(tr("Spacing"), Kind::BarSpacing),
                          head(tr("From"), Kind::Span), head(tr("To"), Kind::Span)});
        table_->show(rows);
        QSignalBlocker quiet(table_);
        if (selected >= 0)
            table_->setCurrentCell(selected, std::max(0, table_->currentColumn()));
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
        heading(tr("Before issue"));
        sentence([this] {
            std::size_t count[4] = {0, 0, 0, 0};
            for (const auto& l : lines_) ++count[std::size_t(l.kind)];
            return tr("%1 failing, %2 outstanding, %3 not checked, %4 assumed. A line leads to its check.%5")
                .arg(count[0])
                .arg(count[1])
                .arg(count[2])
                .arg(count[3])
                .arg(count[0] ? tr(" The drawings are marked: not for construction.") : QString());
        });
        list_ = new QListWidget;
        list_->setObjectName(QStringLiteral("beforeIssue"));
        list_->setAccessibleName(tr("Before issue"));
        list_->setWordWrap(true);
        list_->setFixedHeight(132);
        auto lead = [this, &tray](QListWidgetItem* item) {
            const auto& l = lines_[std::size_t(list_->row(item))];
            if (l.check) emit tray.checkWanted(l.check->place.spot, l.check->key);
        };
        connect(list_, &QListWidget::itemActivated, this, lead);
        connect(list_, &QListWidget::itemClicked, this, lead);
        column_->addWidget(list_);
        heading(tr("Title block"));
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
        heading(tr("Sheets"));
        choice(
            tr("Paper"), "sheetPaper",
            [] {
                QStringList all{tr("to fit")};
                for (const auto& p : model::papers()) all << QString::fromLatin1(p.name);
                return all;
            },
            [this] {
                const auto& paper = session_.project().sheet.paper;
                return paper.empty() ? tr("to fit") : qs(paper);
            },
            [this](const QString& chosen) {
                model::Project next = session_.base();
                next.sheet.paper = chosen == tr("to fit") ? std::string() : chosen.toStdString();
                return next;
            });
        line(
            tr("Scale 1:"), "sheetScale",
            [this] {
                const double scale = session_.project().sheet.scale;
                return scale > 0 ? qs(units::plain(scale)) : QString();
            },
            [this](const QString& typed) -> std::pair<model::Project, QString> {
                model::Project next = session_.base();
                bool good = true;
                const QString number = typed.trimmed().section(QLatin1Char(':'), -1);
                next.sheet.scale = number.isEmpty() ? 0 : number.toDouble(&good);
                return {next, good ? QString()
                                   : tr("A scale is a number, such as 50 for 1:50; empty fits the paper.")};
            },
            tr("to fit"));
        quantity(
            tr("North"), Kind::Angle, "sheetNorth", [this] { return session_.project().sheet.north; },
            [this](double v) {
                model::Project next = session_.base();
                next.sheet.north = v;
                return next;
            });
        flag(
            tr("Plans show every bar"), "everyBar", [this] { return session_.project().sheet.everyBar; },
            [this](bool on) {
                model::Project next = session_.base();
                next.sheet.everyBar = on;
                return next;
            });
        quantity(
            tr("Number of identical members"), Kind::Count, "members",
            [this] {
                return double(session_.slab()    ? session_.slab()->members
                              : session_.floor() ? session_.floor()->members
                                                 : 1);
            },
            [this](double v) {
                const int n = int(std::lround(std::clamp(v, -1.0, 1e6)));
                if (session_.slab()) return slabValue([](model::OneWaySlab& s, int k) { s.members = k; })(n);
                if (session_.floor()) return floorValue([](model::Floor& f, int k) { f.members = k; })(n);
                return session_.base();
            });
        heading(tr("Revisions"));
        sentence([this] {
            const auto& all = session_.project().revisions;
            if (all.empty())
                return tr(
                    "No revision is frozen yet. A frozen revision is kept, and later changes are marked.");
            QStringList lines;
            for (const auto& r : all)
                lines << qs(r->letter + (r->date.empty() ? "" : ", " + r->date) +
                            (r->note.empty() ? "" : ": " + r->note));
            return lines.join(QLatin1Char('\n'));
        });
        column_->addWidget(button(tr("Freeze revision"), QStringLiteral("fixRevision"), [this] { fix(); }));
        heading(tr("Output"));
        const std::pair<QString, QString> files[] = {
            {tr("Issue set into a folder…"), QStringLiteral("issue")},
            {tr("Drawings: DXF, PDF, SVG…"), QStringLiteral("drawing")},
            {tr("Schedule, quantities, model…"), QStringLiteral("schedule")},
            {tr("Calculation report: PDF, HTML, ODT…"), QStringLiteral("report")},
            {tr("Print the drawings…"), QStringLiteral("print")}};
        for (const auto& [label, what] : files)
            column_->addWidget(button(label, QStringLiteral("export_") + what,
                                      [&tray, what = what] { emit tray.exportWanted(what); }));
        column_->addStretch();
    }
    void refresh() override {
        // Of the design as it is now: lines point into it.
        design_ = session_.sharedDesign();
        lines_ = report::beforeIssue(session_.project(), *design_);
        static const char* words[] = {"Failing", "Outstanding", "Not checked", "Assumed"};
        QStringList shown;
        for (const auto& l : lines_)
            shown << (design_->elements.size() > 1
                          ? QStringLiteral("%1 · %2: %3")
                                .arg(tr(words[std::size_t(l.kind)]), qs(l.element), qs(l.text))
                          : QStringLiteral("%1 · %2").arg(tr(words[std::size_t(l.kind)]), qs(l.text)));
        if (shown != shown_) {
            shown_ = shown;
            list_->clear();
            list_->addItems(shown);
            for (int i = 0; i < list_->count(); ++i)
                if (lines_[std::size_t(i)].kind == report::IssueLine::Kind::Over) {
                    QFont bold = list_->font();
                    bold.setBold(true);
                    list_->item(i)->setFont(bold);
                    list_->item(i)->setForeground(theme().over);
                }
        }
        refreshFields();
    }

  private:
    std::shared_ptr<const design::Design> design_;
    std::vector<report::IssueLine> lines_;
    QStringList shown_;
    QListWidget* list_;

    void fix() {
        if (session_.stale())
            return emit refused(tr("It is still being calculated; try again when it is finished."));
        session_.issueMarks();
        auto fixed = design::fixRevision(session_.base(), session_.design());
        if (!fixed.why.empty()) return emit refused(qs(fixed.why));
        session_.apply(tr("Freeze revision %1").arg(qs(session_.project().sheet.revision)),
                       std::move(fixed.project));
    }
};

}  // namespace

TrayPage* barsPage(Session& session, BarDesk& desk, Tray& tray) {
    return new BarsPage(session, desk, tray);
}
TrayPage* issuePage(Session& session, Tray& tray) {
    return new IssuePage(session, tray);
}

}  // namespace talvik::app

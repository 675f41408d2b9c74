// Places 4, 6 and 7: Strips says what this slab's strip is; Bars lists the runs; Issue fills the title block
// and writes what leaves the office.
#include <QHBoxLayout>
#include <QPushButton>
#include <QVBoxLayout>

#include "tray/table.h"
#include "tray/tray.h"
#include "widgets/text.h"

namespace talvik::app {
namespace {

using units::Kind;

class StripsPage final : public TrayPage {
  public:
    explicit StripsPage(Session& session) : TrayPage(session, tr("Strips")) {
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
                          : left || right               ? tr("one end")
                                                        : tr("simple");
            rows.push_back({qs(model::spanLabel(*slab, i)),
                            session_.number(slab->spans[i].length, Kind::Span), end,
                            d && i < d->line.spans.size()
                                ? session_.number(d->line.spans[i].moment, Kind::MomentPerWidth)
                                : QString()});
        }
        auto head = [&](const QString& name, Kind kind) {
            return name + QLatin1Char('\n') + session_.unit(kind);
        };
        table_->setHeads({tr("Span"), head(tr("Length"), Kind::Span), tr("Ends"),
                          head(tr("Moment"), Kind::MomentPerWidth)});
        table_->show(rows);
    }

  private:
    TrayTable* table_;
};

class BarsPage final : public TrayPage {
  public:
    BarsPage(Session& session, BarDesk& desk) : TrayPage(session, tr("Bars")), desk_(desk) {
        auto* buttons = new QHBoxLayout;
        auto button = [&](const QString& text, const QString& name, const QString& tip, auto call) {
            auto* b = new QPushButton(text);
            b->setObjectName(name);
            b->setToolTip(tip);
            connect(b, &QPushButton::clicked, this, call);
            buttons->addWidget(b);
        };
        button(tr("Add run"), "addRun",
               tr("Another run of bars on the selected span's bottom, or over the selected support (A)"),
               [this] { desk_.addRun(); });
        button(tr("Give back"), "giveBack", tr("Let the program choose the selected run again (Delete)"),
               [this] { desk_.release(); });
        button(tr("Give all back"), "giveAllBack", tr("Let the program choose all bars again (Ctrl+B)"),
               [this] { desk_.releaseAll(); });
        buttons->addStretch();
        column_->addLayout(buttons);
        table_ = new TrayTable({tr("Run"), tr("Bar"), tr("Spacing"), tr("From"), tr("To")},
                               {0, 46, 56, 54, 54}, {});
        table_->setObjectName(QStringLiteral("runs"));
        table_->setReadOnly({0});
        connect(table_, &TrayTable::edited, this, &BarsPage::setCell);
        connect(table_, &QTableWidget::currentCellChanged, this, [this](int row) {
            if (const auto* d = session_.slabDesign();
                d && row >= 0 && table_->hasFocus() && row < static_cast<int>(d->bars.size()))
                session_.select(Spot::In::Run, d->bars[static_cast<std::size_t>(row)].id);
        });
        column_->addWidget(table_);
        sentence([] {
            return tr(
                "The program chooses the bars at every change; a dot marks runs that an edit of yours has "
                "fixed. B1, B2: bottom, "
                "outer and inner layer; T1, T2: top. From and to are measured from the first axis.");
        });
        heading(tr("Schedule"));
        sentence([this] {
            const auto* d = session_.slabDesign();
            if (!d || !d->error.empty()) return QString();
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
        const auto* d = session_.slabDesign();
        for (const auto& run : d ? d->bars : std::vector<bars::Run>{}) {
            if (run.id == session_.selectedId()) selected = static_cast<int>(rows.size());
            static const std::map<model::Role, QString> names{
                {model::Role::BottomMain, tr("B1")},   {model::Role::TopMain, tr("T1")},
                {model::Role::TopBand, tr("T1 band")}, {model::Role::BottomSecondary, tr("B2")},
                {model::Role::TopSecondary, tr("T2")}, {model::Role::EndU, tr("U tip")},
                {model::Role::SideU, tr("U side")}};
            rows.push_back({names.at(run.role) + (run.fixed ? QStringLiteral(" •") : QString()), qs(run.bar),
                            session_.number(run.spacing, Kind::BarSpacing),
                            session_.number(run.from, Kind::Span), session_.number(run.to, Kind::Span)});
        }
        auto head = [&](const QString& name, Kind kind) {
            return name + QLatin1Char('\n') + session_.unit(kind);
        };
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
    void setCell(int row, int column, const QString& text) {
        const auto* d = session_.slabDesign();
        if (!d || row >= static_cast<int>(d->bars.size())) return;
        auto run = d->bars[static_cast<std::size_t>(row)];
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
            (column == 2 ? run.spacing : column == 3 ? run.from : run.to) = *parsed.value;
        }
        if (!desk_.setRun(tr("Bars"), run)) refresh();
    }

    BarDesk& desk_;
    TrayTable* table_;
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
        auto button = [&](const QString& label, const QString& what) {
            auto* b = new QPushButton(label);
            b->setObjectName(QStringLiteral("export_") + what);
            connect(b, &QPushButton::clicked, &tray, [&tray, what] { emit tray.exportWanted(what); });
            column_->addWidget(b);
        };
        button(tr("Drawing: DXF, PDF, SVG…"), "drawing");
        button(tr("Bar schedule: CSV, XLSX…"), "schedule");
        button(tr("Calculation report: PDF, HTML…"), "report");
        button(tr("All of these…"), "all");
        button(tr("Print the drawing…"), "print");
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

TrayPage* stripsPage(Session& session) {
    return new StripsPage(session);
}
TrayPage* barsPage(Session& session, BarDesk& desk) {
    return new BarsPage(session, desk);
}
TrayPage* issuePage(Session& session, Tray& tray) {
    return new IssuePage(session, tray);
}

}  // namespace talvik::app

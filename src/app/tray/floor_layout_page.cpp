// Place 2, Layout, of a floor: what is selected or will be drawn; with nothing selected the floor, its grid
// and the drawing below.
#include <QHBoxLayout>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QVBoxLayout>

#include "tray/drawing_below.h"
#include "tray/property_form.h"
#include "tray/tray.h"
#include "widgets/flow_layout.h"
#include "widgets/text.h"
#include "widgets/theme.h"

namespace talvik::app {
namespace {

using Answer = std::pair<model::Project, QString>;

// Name and grid.
class FloorFields final : public TrayPage {
  public:
    explicit FloorFields(Session& session) : TrayPage(session, QString()) {
        column_->setContentsMargins(0, 0, 0, 0);
        line(
            tr("Floor"), QStringLiteral("floorName"), [this] { return qs(session_.floor()->name); },
            [this](const QString& text) -> Answer {
                return {floorValue([](model::Floor& f, const QString& name) {
                            f.name = name.trimmed().toStdString();
                        })(text),
                        text.trimmed().isEmpty() ? tr("A floor needs a name.") : QString()};
            });
        spacings(tr("Grid 1, 2, 3 …"), QStringLiteral("gridAlong"), &model::Grid::along,
                 tr("spacings, such as 5@6.0 4.5"));
        spacings(tr("Grid A, B, C …"), QStringLiteral("gridAcross"), &model::Grid::across,
                 tr("spacings, such as 2@6.2"));
        using units::Kind;
        number(tr("Crossing A1 at x"), QStringLiteral("gridX"), Kind::Span,
               [](model::Grid& g) -> double& { return g.origin.x; });
        number(tr("and y"), QStringLiteral("gridY"), Kind::Span,
               [](model::Grid& g) -> double& { return g.origin.y; });
        number(tr("Rotation"), QStringLiteral("gridAngle"), Kind::Angle,
               [](model::Grid& g) -> double& { return g.angle; });
        number(tr("Angle between"), QStringLiteral("gridBetween"), Kind::Angle,
               [](model::Grid& g) -> double& { return g.between; });
    }
    void refresh() override { refreshFields(); }

  private:
    model::Grid grid() const {
        const auto* f = session_.floor();
        return f && !f->grids.empty() ? f->grids.front() : model::Grid{};
    }
    model::Project withGrid(const std::function<void(model::Grid&)>& change) const {
        return model::editFloor(session_.base(), session_.floor()->id,
                                [&](model::Floor& f, model::Project& p) {
                                    model::Grid g = grid();
                                    change(g);
                                    if (f.grids.empty())
                                        layout::add(p, f, g);
                                    else
                                        f.grids.front() = g;
                                });
    }
    void spacings(const QString& label, const QString& name, std::vector<double> model::Grid::*member,
                  const QString& hint) {
        line(
            label, name,
            [this, member] {
                return qs(
                    units::spacingList(grid().*member, units::Kind::Span, session_.project().basis.units));
            },
            [this, member](const QString& text) -> Answer {
                auto list = units::parseSpacingList(text.toStdString(), units::Kind::Span,
                                                    session_.project().basis.units, 200);
                if (!list.error.empty()) return {session_.base(), qs(list.error)};
                return {withGrid([&](model::Grid& g) { g.*member = list.values; }), {}};
            },
            hint);
    }
    void number(const QString& label, const QString& name, units::Kind kind, double& (*of)(model::Grid&)) {
        quantity(
            label, kind, name,
            [this, of] {
                model::Grid g = grid();
                return of(g);
            },
            [this, of](double v) { return withGrid([&](model::Grid& g) { of(g) = v; }); });
    }
};

class FloorLayoutPage final : public TrayPage {
  public:
    explicit FloorLayoutPage(FloorDesk& desk)
        : TrayPage(desk.session(), tr("Layout")),
          desk_(desk),
          note_(new QLabel),
          form_(new PropertyForm(desk)),
          selectionTools_(new QWidget),
          offsetRow_(new QWidget),
          arcRow_(new QWidget),
          floor_(new FloorFields(desk.session())),
          drawing_(new DrawingBelow(desk)) {
        setObjectName(QStringLiteral("floorLayoutPage"));
        note_->setWordWrap(true);
        QPalette faint = note_->palette();
        faint.setColor(QPalette::WindowText, theme().secondary);
        note_->setPalette(faint);
        column_->addWidget(note_);
        column_->addWidget(form_);
        buildSelectionTools();
        column_->addWidget(selectionTools_);
        column_->addWidget(floor_);
        column_->addWidget(drawing_);
        column_->addStretch(1);
        connect(floor_, &TrayPage::refused, this, &TrayPage::refused);
    }

    void refresh() override {
        const auto* f = desk_.floor();
        if (!f || desk_.dragging()) return;
        const bool next = !desk_.nextId().empty();
        const auto& chosen = desk_.selection();
        QString title = tr("Layout"), note;
        if (next) {
            title = tr("Next: %1").arg(FloorDesk::name(desk_.tool()).toLower());
            note = tr("Properties of what is drawn next.");
        } else if (chosen.size() == 1) {
            title = qs(layout::displayName(*f, *chosen.begin()));
            if (const auto* o = layout::outlineOf(*f, *chosen.begin()))
                note =
                    tr("%1, %2 corners. Click a side, then move it; double-click a length to type it.")
                        .arg(session_.text(std::abs(geometry::area(model::ring(*o))), units::Kind::PlanArea))
                        .arg(o->size());
        } else if (!chosen.empty()) {
            title = tr("%1 members").arg(chosen.size());
            note = tr("Common values; a value typed here is given to all.");
        }
        title_->setText(title);
        note_->setText(note);
        note_->setVisible(!note_->text().isEmpty());
        form_->showInHand(chosen);
        selectionTools_->setVisible(!chosen.empty() && !next);
        offsetRow_->setVisible(chosen.size() == 1 && layout::outlineOf(*f, *chosen.begin()));
        arcRow_->setVisible(desk_.side() >= 0);
        const bool nothing = chosen.empty() && !next;
        floor_->setVisible(nothing);
        drawing_->setVisible(nothing);
        if (nothing) floor_->refresh(), drawing_->refresh();
    }

  private:
    FloorDesk& desk_;
    QLabel* note_;
    PropertyForm* form_;
    QWidget *selectionTools_, *offsetRow_, *arcRow_;
    FloorFields* floor_;
    DrawingBelow* drawing_;

    std::optional<double> length(const QString& text) const {
        return units::parse(text.trimmed().toStdString(), units::Kind::Span, session_.project().basis.units)
            .value;
    }
    static QLineEdit* field(const QString& name, const QString& hint) {
        auto* edit = new QLineEdit;
        edit->setObjectName(name);
        edit->setPlaceholderText(hint);
        edit->setAccessibleName(hint);
        return edit;
    }
    // A field and the button that does something by what is typed there.
    void row(QWidget* into, const QString& name, const QString& hint, const QString& text,
             std::function<void(const QString&)> call) {
        auto* line = new QHBoxLayout(into);
        line->setContentsMargins(0, 0, 0, 0);
        auto* edit = field(name + QStringLiteral("By"), hint);
        line->addWidget(edit, 1);
        line->addWidget(button(text, name, [edit, call] { call(edit->text()); }));
    }
    void byLength(QWidget* into, const QString& name, const QString& hint, const QString& text,
                  void (FloorDesk::*call)(double)) {
        row(into, name, hint, text, [this, call](const QString& typed) {
            const auto v =
                units::parse(typed.toStdString(), units::Kind::Span, session_.project().basis.units);
            v.value ? (desk_.*call)(*v.value) : emit refused(qs(v.error));
        });
    }

    // What can be done with a selection.
    void buildSelectionTools() {
        auto* tools = new QVBoxLayout(selectionTools_);
        tools->setContentsMargins(0, 0, 0, 0);
        tools->setSpacing(4);
        auto* title = new QLabel(tr("Copy, mirror, repeat"));
        title->setFont(uiFont(12, QFont::DemiBold));
        title->setContentsMargins(0, 6, 0, 0);
        tools->addWidget(title);
        auto* copy = new QWidget;
        row(copy, QStringLiteral("copy"), tr("by x, y or x, y, times"), tr("Copy"),
            [this](const QString& typed) {
                const QStringList parts = typed.split(QLatin1Char(','));
                bool good = parts.size() == 2 || parts.size() == 3;
                const int times = parts.size() == 3 ? parts[2].trimmed().toInt(&good) : 1;
                const auto x = length(parts.value(0)), y = length(parts.value(1));
                if (!good || !x || !y || times < 1 || times > 1000)
                    return void(emit refused(
                        tr("Give the distance as x, y and, if more than one, how often: 3.0, 0, 2.")));
                desk_.copySelection({*x, *y}, times);
            });
        tools->addWidget(copy);
        auto* some = new QWidget;
        auto* flow = new FlowLayout(4, some);
        flow->setContentsMargins(0, 0, 0, 0);
        flow->addWidget(button(tr("Mirror"), QStringLiteral("mirror"), [this] {
            desk_.setTool(Tool::Mirror);
            setFocus();
        }));
        flow->addWidget(button(tr("Repeat along row"), QStringLiteral("repeatRow"),
                               [this] { desk_.repeatSelection(true, false); }));
        flow->addWidget(button(tr("On all crossings"), QStringLiteral("repeatAll"),
                               [this] { desk_.repeatSelection(true, true); }));
        flow->addWidget(button(tr("Split beams at supports"), QStringLiteral("split"),
                               [this] { desk_.splitSelection(); }));
        tools->addWidget(some);
        byLength(offsetRow_, QStringLiteral("offset"), tr("outwards by"), tr("Move side or all"),
                 &FloorDesk::offset);
        tools->addWidget(offsetRow_);
        byLength(arcRow_, QStringLiteral("arc"), tr("rise, 0 for straight"), tr("Make the side an arc"),
                 &FloorDesk::arc);
        tools->addWidget(arcRow_);
    }
};

}  // namespace

TrayPage* floorLayoutPage(FloorDesk& desk) {
    return new FloorLayoutPage(desk);
}

}  // namespace talvik::app

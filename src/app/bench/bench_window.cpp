#include "bench/bench_window.h"

#include <QCheckBox>
#include <QComboBox>
#include <QFileDialog>
#include <QFormLayout>
#include <QHBoxLayout>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QTextBrowser>
#include <QTextDocument>
#include <QVBoxLayout>

#include "document/session.h"
#include "formats/file.h"
#include "paper/paper.h"
#include "widgets/text.h"
#include "widgets/theme.h"

namespace talvik::app {

using opinions::BenchInput;
using units::Kind;

BenchWindow::~BenchWindow() = default;

BenchWindow::BenchWindow(Session& session, QWidget* parent)
    : QWidget(parent, Qt::Window),
      session_(session),
      kind_(new QComboBox),
      use_(new QComboBox),
      values_(new QWidget),
      page_(new QTextBrowser),
      says_(new QLabel),
      all_(new QCheckBox(tr("The working of every check"))) {
    setWindowTitle(tr("Panel bench – Talvik"));
    setObjectName(QStringLiteral("bench"));
    kind_->addItem(tr("Section by moment"), int(BenchInput::Kind::Section));
    kind_->addItem(tr("One-way slab by coefficients"), int(BenchInput::Kind::OneWay));
    kind_->addItem(tr("Two-way panel by nine cases"), int(BenchInput::Kind::TwoWay));
    kind_->setObjectName(QStringLiteral("benchKind"));
    for (const auto& u : catalogs::imposedUses()) use_->addItem(qs(u.id + ", " + u.title), qs(u.id));
    auto* side = new QWidget;
    side->setFixedWidth(300);
    auto* column = new QVBoxLayout(side);
    column->addWidget(kind_);
    column->addWidget(values_);
    says_->setWordWrap(true);
    says_->setStyleSheet(QStringLiteral("color:%1").arg(theme().attention.name()));
    column->addWidget(says_);
    auto* common =
        new QLabel(tr("Standard, materials, covers and allowed bars are those of the project: Basis (1)."));
    common->setWordWrap(true);
    common->setStyleSheet(QStringLiteral("color:%1").arg(theme().secondary.name()));
    column->addWidget(common);
    column->addSpacing(8);
    column->addWidget(all_);
    connect(all_, &QCheckBox::toggled, this, &BenchWindow::refresh);
    column->addStretch(1);
    auto* saveButton = new QPushButton(tr("Save the page…"));
    column->addWidget(saveButton);
    page_->setFrameShape(QFrame::NoFrame);
    page_->setAccessibleName(tr("Page"));
    auto* row = new QHBoxLayout(this);
    row->setContentsMargins(0, 0, 0, 0);
    row->addWidget(side);
    row->addWidget(page_, 1);
    resize(1180, 780);
    connect(kind_, &QComboBox::activated, this, [this] {
        input_.kind = BenchInput::Kind(kind_->currentData().toInt());
        fillForm();
        refresh();
    });
    connect(use_, &QComboBox::activated, this, [this] {
        input_.use = use_->currentData().toString().toStdString();
        refresh();
    });
    connect(saveButton, &QPushButton::clicked, this, [this] {
        QString path = QFileDialog::getSaveFileName(this, tr("Save the page"), QStringLiteral("panel.pdf"),
                                                    tr("Pages (*.pdf *.html)"));
        if (path.isEmpty()) return;
        QString why = save(path);
        says_->setText(why.isEmpty() ? tr("Written: %1").arg(path) : why);
    });
    connect(&session_, &Session::changed, this, [this] {
        fillForm();
        refresh();
    });
    setInput(input_);
}

void BenchWindow::setInput(const BenchInput& input) {
    input_ = input;
    kind_->setCurrentIndex(kind_->findData(int(input.kind)));
    fillForm();
    refresh();
}

void BenchWindow::fillForm() {
    use_->setParent(nullptr);
    delete values_->layout();
    qDeleteAll(values_->findChildren<QWidget*>(QString(), Qt::FindDirectChildrenOnly));
    auto* form = new QFormLayout(values_);
    form->setContentsMargins(0, 6, 0, 6);
    auto value = [&](const char* name, const QString& title, double& into, Kind kind) {
        auto* edit = new QLineEdit(session_.number(into, kind));
        edit->setObjectName(QString::fromLatin1(name));
        form->addRow(QStringLiteral("%1, %2").arg(title, session_.unit(kind)), edit);
        connect(edit, &QLineEdit::textEdited, this, [this, &into, kind](const QString& text) {
            auto v = units::parse(text.toStdString(), kind, session_.project().basis.units);
            if (!v.value) return says_->setText(qs(v.error));
            into = *v.value;
            refresh();
        });
    };
    using K = BenchInput::Kind;
    value("thickness", tr("Thickness"), input_.thickness, Kind::Length);
    if (input_.kind == K::Section) {
        value("width", tr("Width"), input_.width, Kind::Length);
        value("moment", tr("Moment (− hogging)"), input_.moment, Kind::Moment);
        return;
    }
    if (input_.kind == K::OneWay) {
        auto* spans = new QLineEdit(QString::number(input_.spans));
        spans->setObjectName(QStringLiteral("spans"));
        form->addRow(tr("Equal spans"), spans);
        connect(spans, &QLineEdit::textEdited, this, [this](const QString& text) {
            bool good = false;
            int n = text.toInt(&good);
            if (!good) return says_->setText(tr("Write the number of spans, such as 3."));
            input_.spans = n;
            refresh();
        });
        value("span", tr("Span, axis to axis"), input_.span, Kind::Span);
        value("support", tr("Width of supports"), input_.support, Kind::Length);
    } else {
        value("lx", tr("Span in x"), input_.lx, Kind::Span);
        value("ly", tr("Span in y"), input_.ly, Kind::Span);
        const QString names[4] = {tr("left"), tr("right"), tr("lower"), tr("upper")};
        auto* edges = new QWidget;
        auto* grid = new QHBoxLayout(edges);
        grid->setContentsMargins(0, 0, 0, 0);
        for (int i = 0; i < 4; ++i) {
            auto* box = new QCheckBox(names[i]);
            box->setObjectName(QStringLiteral("edge%1").arg(i));
            box->setChecked(input_.continuous[i]);
            connect(box, &QCheckBox::toggled, this, [this, i](bool on) {
                input_.continuous[i] = on;
                refresh();
            });
            grid->addWidget(box);
        }
        form->addRow(new QLabel(tr("Continuous edges")));
        form->addRow(edges);
    }
    value("permanent", tr("Other permanent"), input_.permanent, Kind::AreaLoad);
    value("imposed", tr("Imposed"), input_.imposed, Kind::AreaLoad);
    use_->setCurrentIndex(std::max(0, use_->findData(qs(input_.use))));
    form->addRow(tr("Use"), use_);
    use_->show();
}

void BenchWindow::refresh() {
    answer_ = opinions::bench(input_, session_.project().basis);
    says_->setText(qs(answer_.trouble));
    report_ = report::benchPage(input_, answer_, session_.project().basis, all_->isChecked());
    auto text = paper::flow(report_);
    page_->setDocument(text.get());
    text_ = std::move(text);  // the one shown before goes after it is no longer shown
}

QString BenchWindow::save(const QString& path) {
    const auto& document = report_;
    if (!answer_.trouble.empty()) return tr("There is no result to write: %1").arg(qs(answer_.trouble));
    if (path.endsWith(QLatin1String(".html")))
        return qs(formats::writeFile(path.toStdString(), report::html(document, report::Target::Page)));
    return qs(paper::writeReportPdf(path.toStdString(), document));
}

}  // namespace talvik::app

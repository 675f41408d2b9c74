#include "register/analysis_text.h"

#include <fmt/format.h>

#include <QPushButton>
#include <QTextBrowser>
#include <QVBoxLayout>

#include "design/floors.h"
#include "report/report.h"
#include "widgets/text.h"
#include "widgets/theme.h"

namespace talvik::app {

AnalysisText::AnalysisText(Session& session, QWidget* parent)
    : QWidget(parent),
      session_(session),
      text_(new QTextBrowser),
      convergence_(new QPushButton(tr("Mesh convergence check"))) {
    text_->setFrameShape(QFrame::NoFrame);
    text_->setFont(uiFont(12));
    text_->setAccessibleName(tr("Analysis"));
    convergence_->setObjectName(QStringLiteral("convergence"));
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 6);
    column->addWidget(text_, 1);
    column->addWidget(convergence_, 0, Qt::AlignLeft);
    connect(convergence_, &QPushButton::clicked, this, &AnalysisText::seekConvergence);
    connect(&session, &Session::changed, this, [this] {
        ++serial_;
        found_ = {};
    });
}

void AnalysisText::refresh() {
    using Kind = report::Block::Kind;
    report::Document page;
    const auto* answer = dynamic_cast<const design::FloorDesign*>(session_.answer());
    if (!session_.floor()) return;
    convergence_->setEnabled(!session_.stale() && session_.floorAnalysis() &&
                             session_.floorAnalysis()->good());
    if (!answer) {
        page.add(Kind::Title, session_.floor()->name);
        page.add(Kind::Paragraph, "Not analysed yet.");
    } else {
        page = report::analysisPage(session_.project(), session_.design(), *answer, found_);
        const auto& a = *answer->analysis;
        if (session_.stale()) page.add(Kind::Paragraph, "These results are older than the drawing.");
        page.add(Kind::Paragraph, a.reusedAll ? "The results were kept."
                                              : fmt::format("Analysed in {:.0f} ms{}.", a.stages.sum() * 1000,
                                                            a.reusedFactor ? ", the stiffness kept" : ""));
        if (!found_.error.empty()) page.add(Kind::Paragraph, found_.error);
    }
    text_->setHtml(qs(report::html(page, report::Target::Flow)));
}

QString AnalysisText::text() const {
    return text_->toPlainText();
}

QWidget& AnalysisText::textWidget() {
    return *text_;
}

void AnalysisText::seekConvergence() {
    const auto* floor = session_.floor();
    if (!floor) return;
    convergence_->setEnabled(false);
    convergence_->setText(tr("Analysing on half the size…"));
    run_ = std::jthread([this, project = std::make_shared<const model::Project>(session_.project()),
                         id = floor->id, serial = serial_](std::stop_token stop) {
        std::size_t index = 0;
        while (project->floors[index]->id != id) ++index;
        auto c = design::convergence(*project, index, stop);
        if (stop.stop_requested()) return;
        inbox_.hand([this, serial, c = std::move(c)] {
            convergence_->setText(tr("Mesh convergence check"));
            convergence_->setEnabled(true);
            if (serial != serial_) return;
            found_ = c;
            refresh();
        });
    });
}

}  // namespace talvik::app

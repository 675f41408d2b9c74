#include "document/session.h"

#include <QUndoCommand>
#include <algorithm>
#include <cmath>
#include <limits>
#include <utility>

#include "formats/file.h"
#include "formats/project_file.h"
#include "model/edits.h"
#include "model/sources.h"

namespace talvik::app {

// A step of history: the whole project before and after. Rows they share cost nothing.
class SnapshotCommand final : public QUndoCommand {
  public:
    SnapshotCommand(Session& session, const QString& text, std::shared_ptr<const model::Project> before,
                    std::shared_ptr<const model::Project> after, const QString& merge)
        : QUndoCommand(text),
          session_(session),
          before_(std::move(before)),
          after_(std::move(after)),
          merge_(merge) {}
    void undo() override { session_.step(before_); }
    void redo() override { session_.step(after_); }
    int id() const override { return merge_.isEmpty() ? -1 : 1; }
    bool mergeWith(const QUndoCommand* other) override {
        const auto* next = static_cast<const SnapshotCommand*>(other);
        if (next->merge_ != merge_) return false;
        after_ = next->after_;
        if (*before_ == *after_) {
            // Nothing is left of it; ids that it used up are free again as after an undo.
            setObsolete(true);
            session_.step(before_);
        }
        return true;
    }

  private:
    Session& session_;
    std::shared_ptr<const model::Project> before_, after_;
    QString merge_;
};

Session::Session(QObject* parent)
    : QObject(parent),
      undo_(this),
      station_(std::numeric_limits<double>::quiet_NaN()),
      // Both calls come from the background and are handed over to this object's thread.
      live_(
          [this](const design::Request& request, design::Designer::Answer answer) {
              inbox_.hand([this, asked = request.asked, answer = std::move(answer)] {
                  // An edit, or another project, may have come while this waited to be handed over.
                  if (asked != asked_) return;
                  auto& known = answers_[answer->element];
                  const bool same = known == answer;
                  known = answer;
                  if (!same) gather();
                  if (same && (answer->element != element_ || !stale_)) return;
                  if (answer->element == element_) {
                      if (stale_) answerMs_ = double(since_.nsecsElapsed()) / 1e6;
                      stale_ = false, progress_ = 1;
                      if (answer->complete && answer->summary.over > 0) remedyTimer_.start();
                  }
                  emit answered();
              });
          },
          [this](const model::Id& id, double share) {
              inbox_.hand([this, id, share] {
                  if (id != element_ || !stale_) return;
                  progress_ = share;
                  emit answered();
              });
          }) {
    undo_.setUndoLimit(0);
    remedyTimer_.setSingleShot(true);
    remedyTimer_.setInterval(120);
    connect(&remedyTimer_, &QTimer::timeout, this, &Session::seekRemedies);
    connect(&undo_, &QUndoStack::cleanChanged, this, &Session::fileChanged);
    connect(&undo_, &QUndoStack::indexChanged, this, &Session::applyLate);
    start(model::freshProject(), {});
}

model::Project Session::base() const {
    model::Project p = *project_;
    p.nextId = std::max(p.nextId, highestId_);
    return p;
}

const model::OneWaySlab* Session::slab() const {
    return model::findSlab(*project_, element_);
}
const model::Floor* Session::floor() const {
    return model::findFloor(*project_, element_);
}
const model::BaseSet* Session::bases() const {
    return model::findBases(*project_, element_);
}
const std::vector<model::BarRun>& Session::fixedBars() const {
    static const std::vector<model::BarRun> none;
    const auto* f = floor();
    return slab() ? slab()->bars : f ? f->strips.bars : none;
}

const design::SlabDesign* Session::slabDesign() const {
    const auto* a = dynamic_cast<const design::SlabAnswer*>(answer());
    return a ? a->design.get() : nullptr;
}
std::shared_ptr<const design::FloorDesign> Session::floorDesign() const {
    const auto found = answers_.find(element_);
    auto f = found == answers_.end() ? nullptr
                                     : std::dynamic_pointer_cast<const design::FloorDesign>(found->second);
    return f && f->layout ? f : nullptr;
}
const analysis::FloorAnalysis* Session::floorAnalysis() const {
    const auto* f = dynamic_cast<const design::FloorDesign*>(answer());
    return f ? f->analysis.get() : nullptr;
}
const design::BasesAnswer* Session::basesAnswer() const {
    return dynamic_cast<const design::BasesAnswer*>(answer());
}
std::shared_ptr<const design::BasesAnswer> Session::basesDesign() const {
    const auto found = answers_.find(element_);
    return found == answers_.end() ? nullptr
                                   : std::dynamic_pointer_cast<const design::BasesAnswer>(found->second);
}
const design::BasePart* Session::baseInHand() const {
    const auto* a = basesAnswer();
    return a && selection_ ? dynamic_cast<const design::BasePart*>(a->find(selection_->part)) : nullptr;
}
const std::vector<report::Matter>& Session::matters() const {
    if (!held_ && mattersOf_ != std::pair(project_, element_)) {
        matters_ = report::openMatters(*project_, element_);
        mattersOf_ = {project_, element_};
    }
    return matters_;
}
const design::LineAnswer* Session::line() const {
    const auto* a = answer();
    if (!a || !a->error.empty()) return nullptr;
    const auto* part = selection_             ? a->find(selection_->part)
                       : a->parts.size() == 1 ? a->parts.front().get()
                                              : nullptr;
    return dynamic_cast<const design::LineAnswer*>(part);
}

void Session::ask() {
    std::vector<design::Request> wanted;
    ++asked_;
    auto one = [&](const model::Id& id) {
        wanted.push_back({project_, id, asked_});
        if (id == element_) std::rotate(wanted.begin(), wanted.end() - 1, wanted.end());
    };
    for (const auto& s : project_->slabs) one(s->id);
    for (const auto& f : project_->floors) one(f->id);
    for (const auto& b : project_->bases) one(b->id);
    stale_ = !wanted.empty(), stopped_ = false;
    progress_ = 0;
    since_.start();
    live_.want(std::move(wanted));
}
void Session::resumeAnswers() {
    if (stopped_) ask();
}
void Session::stopAnswers() {
    stopped_ = true;
    live_.stop();
    ++asked_;
    emit answered();
}
void Session::gather() {
    std::vector<std::shared_ptr<const design::ElementAnswer>> there;
    auto one = [&](const model::Id& id) {
        if (const auto found = answers_.find(id); found != answers_.end()) there.push_back(found->second);
    };
    for (const auto& s : project_->slabs) one(s->id);
    for (const auto& f : project_->floors) one(f->id);
    for (const auto& b : project_->bases) one(b->id);
    const auto& basis = project_->basis;
    if (!standard_ || standardOf_ != std::pair(basis.standard, basis.parameters)) {
        standard_ = standards::makeStandard(basis.standard, basis.parameters);
        standardOf_ = {basis.standard, basis.parameters};
    }
    design_ = std::make_shared<const design::Design>(design::joined(*project_, standard_, std::move(there)));
}

void Session::keepElement() {
    if (slab() || floor() || bases()) return;
    element_ = !project_->slabs.empty()    ? project_->slabs.front()->id
               : !project_->floors.empty() ? project_->floors.front()->id
               : !project_->bases.empty()  ? project_->bases.front()->id
                                           : model::Id();
}
void Session::setElement(const model::Id& id) {
    emit leaving();
    element_ = id;
    keepElement();
    selection_ = {};
    forgetRemedies();
    ask();
    emit selectionChanged();
    emit changed();
}

void Session::show(std::shared_ptr<const model::Project> project) {
    if (project->marks != marks_) {  // marks given out stay, whatever is taken back
        auto marked = std::make_shared<model::Project>(*project);
        marks_.insert(project->marks.begin(), project->marks.end());
        marked->marks = marks_;
        project = std::move(marked);
    }
    project_ = std::move(project);
    highestId_ = std::max(highestId_, project_->nextId);
    keepElement();
    gather();
    forgetRemedies();
    ask();
    emit changed();
}

void Session::issueMarks() {
    if (project_->marks == design_->marks) return;
    marks_ = design_->marks;
    auto marked = std::make_shared<model::Project>(*project_);
    marked->marks = marks_;
    project_ = std::move(marked);
    gather();
    unsavedMarks_ = true;
    emit changed();
    emit fileChanged();
}

void Session::forgetRemedies() {
    remedies_ = {};
    ++remedySerial_;
    search_ = Search::None;
    remedyThread_.request_stop();
    remedyTimer_.stop();
}

model::PartRef Session::soughtFor() const {
    if (selection_ && answer() &&
        (selection_->part.kind == model::PartKind::Connection ||
         selection_->part.kind == model::PartKind::Base ||
         (selection_->part.kind == model::PartKind::Strip && floor())))
        if (const auto* part = answer()->find(selection_->part); part && part->worst() > 1)
            return selection_->part;
    return {element_};
}

void Session::seekRemedies() {
    // Only where the element in hand is over itself, once its answer is complete.
    const auto* a = answer();
    if (stale_ || !a || !a->complete || a->summary.over == 0) return;
    search_ = Search::UnderWay;
    soughtFor_ = soughtFor();
    emit remediesChanged();
    std::shared_ptr<const design::ElementAnswer> answered;
    if (const auto known = answers_.find(element_); known != answers_.end() && known->second.get() == a)
        answered = known->second;
    remedyThread_ =
        std::jthread([this, snapshot = std::make_shared<const model::Project>(base()), part = soughtFor_,
                      serial = remedySerial_, now = answered](std::stop_token stop) {
            auto each = [this, serial](const design::Remedy& one) {
                inbox_.hand([this, serial, one] {
                    if (serial != remedySerial_) return;
                    remedies_.found.push_back(one);
                    emit remediesChanged();
                });
            };
            auto found = design::remedies(*snapshot, part, stop, each, now);
            if (stop.stop_requested()) return;
            inbox_.hand([this, serial, found = std::move(found)]() mutable {
                if (serial != remedySerial_) return;
                remedies_ = std::move(found);
                search_ = Search::Done;
                emit remediesChanged();
            });
        });
}

void Session::step(std::shared_ptr<const model::Project> project) {
    if (stepping_ == 0) emit stepping();
    ++stepping_;
    show(std::move(project));
    --stepping_;
}

void Session::applyLate() {
    if (stepping_ == 0)
        if (const auto late = std::exchange(late_, nullptr)) late();
}

bool Session::apply(const QString& text, model::Project next, const QString& merge) {
    // A field that is left because of a step of history comes in after it: the stack would lose its order.
    if (stepping_ > 0) {
        late_ = [this, text, next = std::move(next), merge] { apply(text, next, merge); };
        return true;
    }
    auto trouble = model::validate(next);
    if (!trouble.empty()) {
        emit refused(QString::fromStdString(trouble.front().message));
        return false;
    }
    if (next == *project_) return true;
    model::recordChanges(*project_, next, over());
    ++stepping_;  // forwards, with what was typed
    undo_.push(new SnapshotCommand(*this, text, project_,
                                   std::make_shared<const model::Project>(std::move(next)),
                                   merge.isEmpty() ? merge : merge + QString::number(mergeSerial_)));
    --stepping_;
    applyLate();  // where the step went into the one before, the stack tells nothing
    return true;
}

// Of a file, as it is now; 0 where it cannot be read.
static std::size_t contentOf(const QString& path) {
    const auto file = formats::readFile(path.toStdString());
    return file.error.empty() ? std::max<std::size_t>(1, std::hash<std::string>()(file.text)) : 0;
}

QString Session::open(const QString& path) {
    auto read = formats::openProject(path.toStdString());
    if (!read.trouble.empty()) return QString::fromStdString(formats::sentences(read.trouble));
    start(std::move(read.project), path);
    fileContent_ = contentOf(path_);
    return {};
}
void Session::startUnsaved(model::Project project, const QString& path) {
    const auto content = fileContent_;
    start(std::move(project), path);
    fileContent_ = content;
    unsavedMarks_ = true;
    emit changed();
    emit fileChanged();
}
bool Session::changedOutside() const {
    return !path_.isEmpty() && fileContent_ != 0 && contentOf(path_) != fileContent_;
}

QString Session::save(const QString& path) {
    std::string why = formats::saveProject(path.toStdString(), *project_);
    if (!why.empty()) return QString::fromStdString(why);
    path_ = path;
    fileContent_ = contentOf(path_);
    undo_.setClean();
    unsavedMarks_ = false;
    emit fileChanged();
    return {};
}

void Session::start(model::Project project, const QString& path) {
    emit leaving();
    undo_.clear();
    path_ = path;
    fileContent_ = 0;
    late_ = nullptr;
    highestId_ = project.nextId;
    element_.clear();
    marks_ = project.marks;
    unsavedMarks_ = false;
    answers_.clear();
    selection_.reset();
    if (!project.slabs.empty())
        selection_ = Spot{{project.slabs.front()->id, model::PartKind::OneWaySlab, {}}, Spot::In::Whole, {}};
    show(std::make_shared<const model::Project>(std::move(project)));
    emit selectionChanged();
    emit fileChanged();
}

model::PartRef Session::part() const {
    if (selection_) return selection_->part;
    return {element_, slab() ? model::PartKind::OneWaySlab : model::PartKind::Whole, {}};
}
bool Session::over() const {
    return design_->summary().over > 0;
}
void Session::select(std::optional<Spot> spot) {
    if (spot == selection_) return;
    selection_ = std::move(spot);
    if (soughtFor() != soughtFor_ || search_ == Search::None) {
        forgetRemedies();
        remedyTimer_.start();
    }
    emit selectionChanged();
}
void Session::select(Spot::In in, const model::Id& id) {
    select(Spot{part(), in, id});
}
void Session::stepBack() {
    if (!selection_ || selection_->in == Spot::In::Whole)
        select(std::nullopt);
    else
        select(selection_->whole());
}

void Session::setPlace(Place place) {
    if (place == place_) return;
    place_ = place;
    emit placeChanged();
}

void Session::setStation(double x) {
    station_ = x;
    emit stationChanged();
}

QString Session::text(double stored, units::Kind kind) const {
    return QString::fromStdString(units::text(stored, kind, project_->basis.units));
}
QString Session::number(double stored, units::Kind kind) const {
    return QString::fromStdString(units::number(stored, kind, project_->basis.units));
}

QString Session::unit(units::Kind kind) const {
    auto symbol = units::unit(kind, project_->basis.units).symbol;
    return QString::fromUtf8(symbol.data(), static_cast<qsizetype>(symbol.size()));
}

}  // namespace talvik::app

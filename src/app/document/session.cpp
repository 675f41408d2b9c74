#include "document/session.h"

#include <QElapsedTimer>
#include <QUndoCommand>
#include <cmath>
#include <limits>

#include "design/floors.h"
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
    void undo() override { session_.show(before_); }
    void redo() override { session_.show(after_); }
    int id() const override { return merge_.isEmpty() ? -1 : 1; }
    bool mergeWith(const QUndoCommand* other) override {
        const auto* next = static_cast<const SnapshotCommand*>(other);
        if (next->merge_ != merge_) return false;
        after_ = next->after_;
        setObsolete(*before_ == *after_);
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
          [this](const design::LiveFloors::Job& job, std::shared_ptr<const analysis::FloorAnalysis> answer,
                 std::shared_ptr<const design::FloorDesign> design) {
              QMetaObject::invokeMethod(
                  this,
                  [this, id = job.input.floor->id, asked = job.asked, answer = std::move(answer),
                   design = std::move(design)] {
                      // An edit, or another project, may have come while this waited to be handed over.
                      if (asked != floorsAsked_) return;
                      floors_[id] = answer;
                      floorDesigns_[id] = design;
                      if (const auto* f = floor(); f && f->id == id) {
                          floorStale_ = false, floorProgress_ = 1;
                          if (design && design->proof && design->summary.over > 0) remedyTimer_.start();
                      }
                      emit floorChanged();
                  },
                  Qt::QueuedConnection);
          },
          [this](const model::Id& id, double share) {
              QMetaObject::invokeMethod(
                  this,
                  [this, id, share] {
                      if (const auto* f = floor(); !f || f->id != id || !floorStale_) return;
                      floorProgress_ = share;
                      emit floorChanged();
                  },
                  Qt::QueuedConnection);
          }) {
    undo_.setUndoLimit(0);
    remedyTimer_.setSingleShot(true);
    remedyTimer_.setInterval(120);
    connect(&remedyTimer_, &QTimer::timeout, this, &Session::seekRemedies);
    connect(&undo_, &QUndoStack::cleanChanged, this, &Session::fileChanged);
    start(model::emptyProject(), {});
}

model::Project Session::base() const {
    model::Project p = *project_;
    p.nextId = std::max(p.nextId, highestId_);
    return p;
}

const model::Floor* Session::floor() const {
    if (const auto* f = model::findFloor(*project_, slabId_)) return f;
    return project_->slabs.empty() && !project_->floors.empty() ? project_->floors.front().get() : nullptr;
}
const analysis::FloorAnalysis* Session::floorAnalysis() const {
    const auto* f = floor();
    auto found = f ? floors_.find(f->id) : floors_.end();
    return found == floors_.end() ? nullptr : found->second.get();
}
std::shared_ptr<const design::FloorDesign> Session::floorDesign() const {
    const auto* f = floor();
    auto found = f ? floorDesigns_.find(f->id) : floorDesigns_.end();
    return found == floorDesigns_.end() ? nullptr : found->second;
}
design::FloorInput Session::floorInput(std::size_t i) const {
    return design::floorInput(*project_, i);
}
void Session::analyseFloors() {
    std::vector<design::LiveFloors::Job> jobs;
    auto basis = std::make_shared<const model::Basis>(project_->basis);
    ++floorsAsked_;
    for (std::size_t i = 0; i < project_->floors.size(); ++i) {
        jobs.push_back({floorInput(i), basis});
        if (project_->floors[i].get() == floor())
            std::swap(jobs.front(), jobs.back());  // the one in hand first
    }
    for (auto& job : jobs) job.asked = floorsAsked_;
    floorStale_ = !jobs.empty();
    floorProgress_ = 0;
    live_.want(std::move(jobs));
}
void Session::stopFloors() {
    live_.stop();
    ++floorsAsked_;
    emit floorChanged();
}

const model::OneWaySlab* Session::slab() const {
    if (const auto* s = model::findSlab(*project_, slabId_)) return s;
    if (model::findFloor(*project_, slabId_)) return nullptr;
    return project_->slabs.empty() ? nullptr : project_->slabs.front().get();
}
const design::SlabDesign* Session::slabDesign() const {
    const auto* s = slab();
    return s ? design_->find(s->id) : nullptr;
}
void Session::setSlab(const model::Id& id) {
    slabId_ = id;
    selection_ = {};
    forgetRemedies();
    analyseFloors();
    emit selectionChanged();
    emit changed();
}

void Session::show(std::shared_ptr<const model::Project> project) {
    project_ = std::move(project);
    highestId_ = std::max(highestId_, project_->nextId);
    QElapsedTimer timer;
    timer.start();
    design_ = std::make_shared<const design::Design>(design::run(*project_));
    answerMs_ = static_cast<double>(timer.nsecsElapsed()) / 1e6;
    forgetRemedies();
    analyseFloors();
    emit changed();
}

void Session::forgetRemedies() {
    remedies_.clear();
    ++remedySerial_;
    search_ = Search::None;
    remedyThread_.request_stop();
    remedyTimer_.stop();
    if (slab() && design_->summary().over > 0) remedyTimer_.start();
}

void Session::seekRemedies() {
    const auto* f = floor();
    const auto* s = slab();
    const auto d = floorDesign();
    const auto* sd = slabDesign();
    // Only where the element in hand is over itself; of a floor, once its own answer is complete.
    if (f ? floorStale_ || !d || d->summary.over == 0 : !s || !sd || checks::summary(sd->checks).over == 0)
        return;
    search_ = Search::UnderWay;
    emit remediesChanged();
    remedyThread_ = std::jthread([this, snapshot = std::make_shared<const model::Project>(base()),
                                  id = f ? f->id : s->id, serial = remedySerial_](std::stop_token stop) {
        auto found = design::remedies(*snapshot, id, stop);
        if (stop.stop_requested()) return;
        QMetaObject::invokeMethod(
            this,
            [this, serial, found = std::move(found)]() mutable {
                if (serial != remedySerial_) return;
                remedies_ = std::move(found);
                search_ = Search::Done;
                emit remediesChanged();
            },
            Qt::QueuedConnection);
    });
}

bool Session::apply(const QString& text, model::Project next, const QString& merge) {
    auto trouble = model::validate(next);
    if (!trouble.empty()) {
        emit refused(QString::fromStdString(trouble.front().message));
        return false;
    }
    // New members need bars of their own: a slab without any gets a proposal in the same step.
    for (const auto& slab : next.slabs)
        if (slab->bars.empty()) next = design::proposeBars(next, slab->id);
    next = design::withMarks(next);
    if (next == *project_) return true;
    model::recordChanges(*project_, next, over());
    undo_.push(new SnapshotCommand(*this, text, project_,
                                   std::make_shared<const model::Project>(std::move(next)),
                                   merge.isEmpty() ? merge : merge + QString::number(mergeSerial_)));
    return true;
}

QString Session::open(const QString& path) {
    auto read = formats::openProject(path.toStdString());
    if (!read.trouble.empty()) return QString::fromStdString(formats::sentences(read.trouble));
    start(std::move(read.project), path);
    return {};
}

QString Session::save(const QString& path) {
    std::string why = formats::saveProject(path.toStdString(), *project_);
    if (!why.empty()) return QString::fromStdString(why);
    path_ = path;
    undo_.setClean();
    emit fileChanged();
    return {};
}

void Session::start(model::Project project, const QString& path) {
    undo_.clear();
    path_ = path;
    highestId_ = project.nextId;
    slabId_ = project.slabs.empty() ? model::Id() : project.slabs.front()->id;
    floors_.clear();
    floorDesigns_.clear();
    selection_.reset();
    if (!project.slabs.empty())
        selection_ = Spot{{slabId_, model::PartKind::OneWaySlab, {}}, Spot::In::Whole, {}};
    show(std::make_shared<const model::Project>(std::move(project)));
    emit selectionChanged();
    emit fileChanged();
}

model::PartRef Session::slabPart() const {
    const auto* s = slab();
    return {s ? s->id : slabId_, model::PartKind::OneWaySlab, {}};
}
bool Session::over() const {
    return design_->summary().over > 0 ||
           std::any_of(floorDesigns_.begin(), floorDesigns_.end(),
                       [](const auto& f) { return f.second && f.second->summary.over > 0; });
}
void Session::select(std::optional<Spot> spot) {
    if (spot == selection_) return;
    selection_ = std::move(spot);
    emit selectionChanged();
}
void Session::select(Spot::In in, const model::Id& id) {
    select(Spot{slabPart(), in, id});
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

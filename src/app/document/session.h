// What the window's parts share: the project and its undo history, the design that answers it, the selection,
// the place of work, and the horizontal scale common to plan and long section.
#pragma once

#include <QElapsedTimer>
#include <QObject>
#include <QString>
#include <QTimer>
#include <QUndoStack>
#include <functional>
#include <memory>
#include <thread>

#include "design/bases.h"
#include "design/design.h"
#include "design/floor_design.h"
#include "design/live_answers.h"
#include "design/remedies.h"
#include "document/inbox.h"
#include "report/open_matters.h"

namespace talvik::app {

using model::Spot;

enum class Place { Basis = 1, Layout, Actions, Strips, Checks, Bars, Issue };

class Session : public QObject {
    Q_OBJECT
  public:
    explicit Session(QObject* parent = nullptr);

    const model::Project& project() const { return *project_; }
    // All answers there are; those of elements that were edited since are of a moment ago.
    const design::Design& design() const { return *design_; }
    const std::shared_ptr<const design::Design>& sharedDesign() const { return design_; }
    double answerMilliseconds() const { return answerMs_; }  // from the edit to the answer in hand
    // The project to edit from: as project(), but new ids go on after all that were ever used, also after
    // undo.
    model::Project base() const;
    // The element in hand: a slab, a floor or a set of bases; the others are null then, all are in an empty
    // project.
    const model::OneWaySlab* slab() const;
    const model::Floor* floor() const;
    const model::BaseSet* bases() const;
    const model::Id& element() const { return element_; }
    void setElement(const model::Id& id);
    // The fixed bars of the element in hand.
    const std::vector<model::BarRun>& fixedBars() const;
    // Its answer, worked out in the background; null before the first.
    const design::ElementAnswer* answer() const { return design_->find(element_); }
    // The same by kind, where it has results.
    const design::SlabDesign* slabDesign() const;
    std::shared_ptr<const design::FloorDesign> floorDesign() const;
    const analysis::FloorAnalysis* floorAnalysis() const;
    const design::BasesAnswer* basesAnswer() const;
    std::shared_ptr<const design::BasesAnswer> basesDesign() const;  // the same, to keep
    const design::BasePart* baseInHand() const;                      // null without
    // The line in hand: the part selected, or the only one there is. Null without, and before its answer.
    const design::LineAnswer* line() const;
    // Whether a newer answer to the element in hand is under way, and how far it is.
    bool stale() const { return stale_; }
    double progress() const { return progress_; }
    void stopAnswers();    // leaves the answer stale
    void resumeAnswers();  // asks anew where they were stopped

    // What stands open in the element in hand before any check; sought once for each state of the project.
    const std::vector<report::Matter>& matters() const;
    void holdMatters(bool hold) { held_ = hold; }  // as they are, while something is dragged

    // Whether a check of any element is over, as far as answers are there.
    bool over() const;
    // What would make the element in hand pass; found in the background after every edit, empty until then.
    const std::vector<design::Remedy>& remedies() const { return remedies_.found; }
    const std::vector<design::InVain>& inVain() const { return remedies_.vain; }  // kinds of edits, once sought
    // For what: the connection in hand where that is over, else the element as a whole.
    model::PartRef soughtFor() const;
    // Whether they are being sought, and whether the search for what is shown has come to its end.
    bool seeking() const { return search_ == Search::UnderWay; }
    bool sought() const { return search_ == Search::Done; }

    // Makes `next` the project, as one undoable step named `text`. Steps with the same non-empty `merge` that
    // follow each other become one. A project that is not valid is refused: the sentence goes to `refused`
    // and nothing changes.
    // New marks of bars that leave the office stay from then on; no step of history takes them back.
    void issueMarks();
    bool apply(const QString& text, model::Project next, const QString& merge = {});
    void endMerge() { mergeSerial_++; }
    QUndoStack& undoStack() { return undo_; }

    // Files. Open leaves everything as it is when the file cannot be used and returns the sentences.
    QString open(const QString& path);
    QString save(const QString& path);
    void start(model::Project project, const QString& path);         // replaces everything, clears history
    void startUnsaved(model::Project project, const QString& path);  // likewise; it differs from the file
    // Whether someone else has written the file since it was opened or saved here.
    bool changedOutside() const;
    const QString& path() const { return path_; }
    bool modified() const { return !undo_.isClean() || unsavedMarks_; }

    // What is in hand: a part as a whole, or a span, support or run of it; nothing where there is none.
    const std::optional<Spot>& selection() const { return selection_; }
    void select(std::optional<Spot> spot);
    void select(Spot::In in, const model::Id& id = {});  // of the part in hand
    model::PartRef part() const;                         // the one selected, or a one-way slab's own
    bool selected(Spot::In in) const { return selection_ && selection_->in == in; }
    bool selected(Spot::In in, const model::Id& id) const { return selected(in) && selection_->id == id; }
    model::Id selectedId() const { return selection_ ? selection_->id : model::Id(); }
    // From a span, support or run to its part; from a part to nothing.
    void stepBack();
    Place place() const { return place_; }
    void setPlace(Place place);
    double station() const { return station_; }  // mm along the strip; NaN without pointer
    void setStation(double x);

    // Text of a stored value in the displayed units.
    QString text(double stored, units::Kind kind) const;
    QString number(double stored, units::Kind kind) const;
    QString unit(units::Kind kind) const;  // its symbol

  signals:
    void leaving();   // the element in hand or the project: what stands in fields is to come in first
    void stepping();  // a step of history comes: what is being typed into a cell of a table is not for what
                      // follows
    void changed();   // the project
    void answered();  // an element, or how far that is
    void selectionChanged();
    void remediesChanged();
    void placeChanged();
    void stationChanged();
    void refused(const QString& sentence);
    void fileChanged();  // path or clean state

  private:
    friend class SnapshotCommand;
    void show(std::shared_ptr<const model::Project> project);
    void step(std::shared_ptr<const model::Project> project);  // of history
    void applyLate();
    void ask();     // for answers to all elements, the one in hand first
    void gather();  // answers to the design
    void keepElement();
    void seekRemedies();  // on a snapshot, in a thread of its own; published only if still current

    std::shared_ptr<const model::Project> project_;
    std::shared_ptr<const design::Design> design_;
    double answerMs_ = 0;
    int highestId_ = 1;            // ids are never reused, also after undo
    schedule::Marks marks_;        // all that were given out
    bool unsavedMarks_ = false;    // or what was kept of another run
    std::size_t fileContent_ = 0;  // of the file as it was read or written last; a hash
    std::shared_ptr<const standards::Standard> standard_;
    std::pair<std::string, catalogs::ParameterValues> standardOf_;
    QUndoStack undo_;
    int mergeSerial_ = 0;
    int stepping_ = 0;            // steps of history under way
    std::function<void()> late_;  // an edit that came during one
    QString path_;
    model::Id element_;
    std::optional<Spot> selection_;
    Place place_ = Place::Checks;
    double station_;
    design::Remedies remedies_;
    QTimer remedyTimer_;
    int remedySerial_ = 0;
    enum class Search { None, UnderWay, Done } search_ = Search::None;
    model::PartRef soughtFor_;
    void forgetRemedies();
    std::map<model::Id, std::shared_ptr<const design::ElementAnswer>> answers_;
    mutable std::vector<report::Matter> matters_;
    bool held_ = false;
    mutable std::pair<std::shared_ptr<const model::Project>, model::Id> mattersOf_;
    bool stale_ = false, stopped_ = false;
    double progress_ = 1;
    QElapsedTimer since_;  // the last asking
    int asked_ = 0;        // grows with each asking: answers to older ones are dropped
    // Last: stopped and joined before anything else goes.
    Inbox inbox_;
    std::jthread remedyThread_;
    design::LiveAnswers live_;
};

}  // namespace talvik::app

// Work on the bars of the line in hand: the edits that mouse and keys make of them. Long section, table and
// menu go through here.
#pragma once

#include <QObject>

#include "bars/run_edits.h"
#include "document/session.h"

namespace talvik::app {

class BarDesk : public QObject {
    Q_OBJECT
  public:
    explicit BarDesk(Session& session, QObject* parent = nullptr);

    // The run in hand: as the project has it where it is fixed, else as the answer has it.
    std::optional<bars::Run> run() const;
    std::optional<bars::Run> find(const model::Id& id) const;
    void walkRuns(int by);  // to the next run along the line
    void walk(int by);      // to the next span or support
    std::optional<Spot> spanAt(double u) const;

    // Edits; each is one step of history, those with the same `merge` become one. An edited run is fixed from
    // then on, and in hand.
    bool setRun(const QString& text, const bars::Run& run, const QString& merge = {});
    bool changeSpacing(int steps);
    bool changeBar(int steps);
    bool moveEnd(bool end, double by);
    // The run's end to a place on the line, held within the cover.
    bool dragEnd(const bars::Run& run, bool end, double to);
    void endDrag() { session_.endMerge(); }
    bool toggleHook(bool end);
    // What someone wrote: "H16 @ 150"; the sentence why not.
    QString write(const model::Id& run, const QString& text);
    // Made two that lap at u; in the middle where u is outside or not a number.
    bool splitRun(double u);
    bool splitInMiddle();
    // Made one with the next run of its face, or with the one before where there is none.
    bool joinRuns();
    // More bars at the span or support in hand: bottom bars of a span, top bars over a support, as those
    // there.
    bool addRun();
    bool release();     // gives the run in hand back to the program
    void releaseAll();  // all of the element

  signals:
    void said(const QString& sentence);

  private:
    using Change = std::function<std::string(bars::Fixed&, model::Project&)>;
    bool edit(const QString& text, const Change& change, const QString& merge = {});
    Session& session_;
};

}  // namespace talvik::app

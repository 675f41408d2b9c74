// The margin: why. The checks of the selection, worst first, like ones gathered; each opens to its working.
// With nothing selected the state of the whole project; in Layout and Actions what stands open there.
#pragma once

#include <QAbstractScrollArea>
#include <memory>
#include <set>

#include "checks/checks.h"
#include "document/session.h"
#include "report/margin.h"

class QTextDocument;

namespace talvik::app {

class MarginView : public QAbstractScrollArea {
    Q_OBJECT
  public:
    explicit MarginView(Session& session, QWidget* parent = nullptr);
    ~MarginView() override;

    // Shows a check opened, as the find palette and the keyboard do.
    void open(const std::string& key);
    // Keys of the checks listed now, in order; for tests.
    std::vector<std::string> listed() const;
    // Where the n-th remedy listed stands, in the view, and the button that adopts it once it is chosen; for
    // tests.
    QRect remedyRect(std::size_t index) const;
    QRect adoptRect(std::size_t index) const;
    QRect checkRect(const std::string& key) const;  // likewise of a check
    QRect mendButton(std::size_t matter) const;
    bool isOpen(const std::string& key) const { return open_.contains(key); }

  signals:
    void matterWanted(std::size_t number, bool mend);  // of Session::matters, to be shown or mended
    // What a remedy would make of the project, for the plan; null: nothing is chosen any more.
    void previewed(std::shared_ptr<const model::Project> project);

  protected:
    void paintEvent(QPaintEvent*) override;
    void resizeEvent(QResizeEvent*) override;
    void mousePressEvent(QMouseEvent*) override;
    void keyPressEvent(QKeyEvent*) override;
    void scrollContentsBy(int dx, int dy) override;
    void leaveEvent(QEvent*) override;

  private:
    struct Item {
        using Kind = report::MarginLine::Kind;  // Remedies: one of them
        Kind kind;
        QString text, right;
        const checks::Check* check = nullptr;  // a kind of them for Like: its worst
        std::size_t number = 0;                // of a remedy or matter
        // Of what the keyboard walks through.
        std::string key() const { return !check ? "" : kind == Kind::Like ? check->what : check->key; }
        std::shared_ptr<QTextDocument> working = {};
        int y = 0, height = 0;
        // Of the last line of the remedies: the room that all of them have, whatever there is to list.
        int reserved = 0;
        bool more = false;  // lists the others at a click
    };
    void rebuild();
    std::shared_ptr<const design::Design> shown_;  // to which the checks listed belong
    void layOut();
    void addRemedies();
    void followRemedies();
    const design::Remedy* remedy(std::size_t listed) const;
    void choose(std::size_t listed);
    void adopt(std::size_t listed);
    QRectF mendRect(const Item& item) const;  // in the whole list
    void paintCheck(QPainter& p, const Item& item, double y, bool current);
    std::unique_ptr<QTextDocument> working(const checks::Check& check, int width) const;
    void toggle(int index);
    void moveCurrent(int direction);

    Session& session_;
    std::vector<Item> items_;
    std::set<std::string> open_, unfolded_;  // checks, and kinds of them
    std::string current_;                    // key of the item with the keyboard
    // Remedies as they are listed, by their text: what comes later stands below what is there, and they are
    // put in order when all are found and the pointer is elsewhere. The one clicked last; whether all are
    // listed.
    std::vector<std::string> listed_;
    std::string chosen_;
    bool allRemedies_ = false;
    int height_ = 0;
};

}  // namespace talvik::app

// Below the plan: the long section of what is in hand, and tables of the element: panels, load cases,
// combinations, what supports carry, the analysis. Which of them is shown is remembered for each place.
#pragma once

#include <QWidget>

#include "board/floor_desk.h"
#include "connections/connection_desk.h"

class QBoxLayout;
class QPushButton;
class QStackedWidget;
class QTableWidget;
class QToolButton;

namespace talvik::app {

class AnalysisText;
class ConnectionTable;
class BasePane;
class BaseTable;
class ConnectionView;
class ElidedLabel;
class LineSection;
class LoadCases;

class Register : public QWidget {
    Q_OBJECT
  public:
    Register(FloorDesk& desk, LineSection& section, ConnectionDesk& connections, QWidget* parent = nullptr);
    enum class Page { Section, Panels, Cases, Combinations, Supports, Analysis, Connections, Bases };
    Page page() const;
    void show(Page page);
    void change();  // from the long section to the table of the place, and back
    QTableWidget& table() { return *table_; }
    QWidget& part();  // what takes the keyboard on the page
    AnalysisText& analysis() { return *analysis_; }
    ConnectionTable& connections() { return *connectionTable_; }
    BaseTable& bases() { return *bases_; }
    BasePane& basePane() { return *basePane_; }

  signals:
    void showWanted(double x, double y);

  private:
    FloorDesk& desk_;
    Session& session_;
    ElidedLabel* note_;
    QBoxLayout* top_;
    QWidget *tabs_, *actions_;
    std::map<Page, QToolButton*> buttons_;
    QPushButton *own_, *add_, *remove_, *adopt_;
    QStackedWidget* pages_;
    QWidget* section_;
    QTableWidget* table_;
    LoadCases* cases_;
    AnalysisText* analysis_;
    ConnectionDesk& connections_;
    ConnectionTable* connectionTable_;
    ConnectionView* connectionView_;
    BaseTable* bases_;
    BasePane* basePane_;
    std::map<std::pair<Place, bool>, Page> chosen_;  // of places, of floors or others
    bool filling_ = false;
    QString shape_;

  protected:
    void resizeEvent(QResizeEvent* event) override;

  private:
    bool has(Page page) const;
    Page usual() const;  // in this place
    void buildActions();
    void refresh();
    void fill(const QStringList& heads, const std::vector<QStringList>& rows, const std::set<int>& editable,
              const std::vector<int>& widths);
    void edited(int row, int column, const QString& text);
    void editPanel(int row, int column, const QString& text);
    void editCombination(int row, int column, const QString& text);
    void fillPanels();
    void fillCombinations();
    void fillSupports();
    void fillSlabCombinations();
    void fillSlabSupports();
};

}  // namespace talvik::app

// A field for a quantity: takes arithmetic and units ("1.1*500/280", "8 in"), shows the stored value in the
// displayed unit, and says in a sentence what is wrong with text it cannot take.
#pragma once

#include <QLineEdit>
#include <optional>

#include "units/units.h"

namespace talvik::app {

// What a field shows, left alone while the user types there. A selection stays if the text does: answers
// that arrive between "all" and the first digit must not make the digits an addition.
void showText(QLineEdit& edit, const QString& text);

class QuantityEdit : public QLineEdit {
    Q_OBJECT
  public:
    explicit QuantityEdit(units::Kind kind, QWidget* parent = nullptr);
    void setSystem(units::System system) { system_ = system; }
    void setStored(double value);  // does nothing while the user types here
    // 0 means that the program chooses: the field is empty then, with what it chose in grey; emptied, it is
    // 0.
    void setAutomatic(std::optional<double> chosen);

  signals:
    void entered(double stored);
    void refused(const QString& sentence);

  protected:
    void keyPressEvent(QKeyEvent* event) override;

  private:
    void finish();
    units::Kind kind_;
    units::System system_ = units::System::Metric;
    double stored_ = 0;
    bool automatic_ = false;
};

}  // namespace talvik::app

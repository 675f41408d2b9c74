// The real window without the mouse: keys go where the keyboard is, and it goes by F6, Tab and arrows alone.
#pragma once

#include <QDialog>
#include <QTableWidget>
#include <functional>

#include "open_window.h"

namespace talvik::app {

class ByKeyboard : public OpenWindow {
  protected:
    // A key where the keyboard is.
    void strike(Qt::Key key, Qt::KeyboardModifiers m = {}) {
        QApplication::setActiveWindow(&window);
        QWidget* at = QApplication::focusWidget();
        QTest::keyClick(at ? at : &window, key, m);
        QCoreApplication::processEvents();
    }
    void write(const char* text) {
        QTest::keyClicks(QApplication::focusWidget(), QString::fromUtf8(text));
        strike(Qt::Key_Return);
    }
    // Into the tray by F6, and on by Tab until `there`.
    bool tabUntil(const std::function<bool(QWidget*)>& there) {
        for (int i = 0; i < 5; ++i) {
            strike(Qt::Key_F6);
            if (!window.tray().isAncestorOf(QApplication::focusWidget())) continue;
            for (int k = 0; k < 40; ++k) {
                if (there(QApplication::focusWidget())) return true;
                strike(Qt::Key_Tab);
            }
        }
        return false;
    }
    bool tabTo(const char* field) {
        const bool found = tabUntil([&](QWidget* w) { return w->objectName() == QLatin1String(field); });
        if (!found) ADD_FAILURE() << field << " is not reached by Tab";
        return found;
    }
    // Over what is written in a field.
    void field(const char* name, const char* text) {
        if (!tabTo(name)) return;
        strike(Qt::Key_A, Qt::ControlModifier);
        write(text);
    }
    // By arrows to a cell of the table that has the keyboard, and writes there.
    void cell(QTableWidget& table, int row, int column, const char* text) {
        ASSERT_TRUE(table.hasFocus() || table.isAncestorOf(QApplication::focusWidget()));
        strike(Qt::Key_Home, Qt::ControlModifier);
        for (int i = 0; i < row; ++i) strike(Qt::Key_Down);
        for (int i = 0; i < column; ++i) strike(Qt::Key_Right);
        ASSERT_EQ(table.currentRow(), row);
        ASSERT_EQ(table.currentColumn(), column);
        strike(Qt::Key_F2);
        auto* edit = qobject_cast<QLineEdit*>(QApplication::focusWidget());
        ASSERT_TRUE(edit) << row << " " << column;
        strike(Qt::Key_A, Qt::ControlModifier);
        write(text);
        QCoreApplication::sendPostedEvents(nullptr, QEvent::DeferredDelete);
        table.setFocus();  // as it does by itself once the editor is gone
    }
    // A choice in a cell: Tab goes from the table into it, letters pick.
    void pick(QTableWidget& table, int row, int column, const char* letters) {
        for (int i = 0; i < 60 && QApplication::focusWidget() != table.cellWidget(row, column); ++i)
            strike(Qt::Key_Tab);
        ASSERT_EQ(QApplication::focusWidget(), table.cellWidget(row, column)) << row << " " << column;
        QTest::keyClicks(QApplication::focusWidget(), QString::fromUtf8(letters));
        QCoreApplication::processEvents();
    }
    // By name.
    void find(const char* name) {
        strike(Qt::Key_F, Qt::ControlModifier);
        auto* palette = window.findChild<QDialog*>(QStringLiteral("findPalette"));
        ASSERT_TRUE(palette);
        QTest::keyClicks(palette->findChild<QLineEdit*>(), QString::fromUtf8(name));
        QTest::keyClick(palette->findChild<QLineEdit*>(), Qt::Key_Return);
        QCoreApplication::sendPostedEvents(nullptr, QEvent::DeferredDelete);
        QCoreApplication::processEvents();
    }

    void focusPart(QWidget& part) {
        for (int i = 0; i < 6; ++i) {
            if (part.hasFocus() || part.isAncestorOf(QApplication::focusWidget())) return;
            strike(Qt::Key_F6);
        }
        ADD_FAILURE() << part.objectName().toStdString() << " is not reached by F6";
    }
};

}  // namespace talvik::app

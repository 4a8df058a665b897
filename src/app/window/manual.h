// The manual in a window of its own: the pages down the left, what is looked for is found on whichever page it stands.
#pragma once

#include <QWidget>

class QLineEdit;
class QListWidget;
class QTextBrowser;

namespace orthema::app {

class Manual : public QWidget {
    Q_OBJECT
public:
    /// Null where the manual's pages do not lie with the program.
    static Manual* found(QWidget* parent);
    /// The page of a stage's key, `desk` or the name of any other page.
    void show_page(const QString& name);
    [[nodiscard]] QTextBrowser* text() const { return text_; }

protected:
    void keyPressEvent(QKeyEvent* event) override;

private:
    Manual(QString folder, QWidget* parent);
    void find_next();
    QString folder_;
    QListWidget* pages_;
    QLineEdit* find_;
    QTextBrowser* text_;
};

}  // namespace orthema::app

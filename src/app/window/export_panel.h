// Export in one action: what to write, where, how far it is, and Stop.
#pragma once

#include <QDialog>

#include "app/session/workroom.h"

class QCheckBox;
class QLabel;
class QLineEdit;
class QProgressBar;
class QPushButton;

namespace orthema::app {

class Segments;

class ExportPanel : public QDialog {
    Q_OBJECT
public:
    explicit ExportPanel(Workroom& room, QWidget* parent = nullptr);

signals:
    void findings_wanted();

private:
    /// The ticks and the folder as they were last, by what was written then.
    void as_before();
    void remember();
    std::vector<QCheckBox*> ticks_;
    void start();
    void show_open();
    Workroom& room_;
    QLineEdit* folder_;
    QCheckBox *pdf_, *png_, *tiff_, *cut_, *labels_, *guides_, *tables_, *press_, *papers_, *svg_;
    Segments *dpi_, *guide_order_;
    QProgressBar* bar_;
    QLabel *says_, *open_;
    QPushButton *go_, *stop_, *look_, *open_folder_;
};

}  // namespace orthema::app

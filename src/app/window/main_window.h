// The shell: job line, bench, figures, findings, and the top line with the order and its units.
#pragma once

#include <QMainWindow>

#include <vector>

#include "app/benches/bench.h"
#include "app/widgets/fitting_label.h"
#include "core/pipeline/next_step.h"

class QLabel;
class QMenu;
class QStackedWidget;
class QToolButton;

namespace orthema::app {

class ChipRow;
class Desk;
class ExportPanel;
class FindingsPanel;
class FindingsStrip;
class JobLine;
class KeysPanel;
class LookUp;
struct Known;
class Manual;
class NextLine;
class NoticeBar;
class Segments;
class SettingsPanel;

class MainWindow : public QMainWindow {
    Q_OBJECT
public:
    explicit MainWindow(Workroom& room);
    void go_to(int index);
    void go_to(const QString& stage);
    [[nodiscard]] int current() const { return current_; }
    /// The shop's orders in place of the benches.
    void show_desk();
    [[nodiscard]] bool at_desk() const { return at_desk_; }
    [[nodiscard]] Desk* desk();
    [[nodiscard]] Bench* bench(const QString& stage);
    [[nodiscard]] NoticeBar* notices() const { return notice_; }
    /// Brings in a file by what it is: an order is opened, a list imported, a picture added.
    void bring_in(const QStringList& paths);
    /// Saves under the order's own name, or asks for one.
    void save();
    [[nodiscard]] ExportPanel* show_export();
    void show_findings();

signals:
    /// The program is to start anew, with this order: all that was unsaved lies beside it. Nothing where it has no file.
    void again_wanted(const QString& path);
    void first_painted();

protected:
    void closeEvent(QCloseEvent* event) override;
    bool let_go_unkept();
    void two_wrote(const QString& path);
    void dragEnterEvent(QDragEnterEvent* event) override;
    void dropEvent(QDropEvent* event) override;
    void paintEvent(QPaintEvent* event) override;

private:
    void build_top(QWidget* top);
    void build_actions();
    void refresh();
    void save_as();
    void open();
    void help();
    Workroom& room_;
    Bench* made(int index);
    void make_the_rest();
    std::vector<Bench*> benches_;  ///< null until it is first wanted
    int current_ = 0;
    bool at_desk_ = false;
    Desk* desk_ = nullptr;     ///< null until it is first wanted
    ChipRow* jobs_ = nullptr;  ///< of a gang
    void show_jobs();
    JobLine* line_ = nullptr;
    QStackedWidget* middle_ = nullptr;
    QStackedWidget* right_ = nullptr;
    FindingsPanel* all_findings_ = nullptr;
    FindingsStrip* findings_ = nullptr;
    NextLine* next_ = nullptr;
    void show_next();
    void do_next(const NextStep& step);
    Shared<Order> sent_out_;  ///< the order as it was exported last
    NoticeBar* notice_ = nullptr;
    QLabel *name_ = nullptr, *about_ = nullptr, *ready_ = nullptr;
    FittingLabel* film_ = nullptr;
    Segments* units_ = nullptr;
    QMenu* recent_ = nullptr;
    QAction *undo_ = nullptr, *redo_ = nullptr;
    LookUp* look_up_ = nullptr;  ///< null until it is first wanted
    KeysPanel* keys_ = nullptr;
    void look_up();
    std::vector<Known> everything();
    void show_keys();
    Manual* manual_ = nullptr;
    SettingsPanel* settings_ = nullptr;
    void show_settings();
    void copy_report();
    void go_back_to_place();
    void keep_place();
    ExportPanel* export_ = nullptr;
    bool painted_ = false;
};

}  // namespace orthema::app

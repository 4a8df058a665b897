// Press desk: the shift as it runs in the window. Keeps its clock (at a rehearsal's speed), talks to the presses over their
// lines, plans the rest anew when something takes longer, writes into the order what was found, and keeps
// how far it is.
#pragma once

#include <QElapsedTimer>
#include <QObject>
#include <QProcess>
#include <QTemporaryDir>
#include <QThreadPool>
#include <QTimer>

#include <memory>
#include <optional>

#include "app/benches/press/shift_recorder.h"
#include "app/session/workroom.h"
#include "core/pressing/next_try.h"
#include "core/pressing/shift.h"
#include "devices/press.h"
#include "files/shift_file.h"

namespace orthema::app {

class PressDesk : public QObject {
    Q_OBJECT
public:
    explicit PressDesk(Workroom& room);
    ~PressDesk() override;

    /// Begins a shift on the plan as it stands: with simulated presses, `speed` times as fast as the clock.
    /// `hand`: who loads in a rehearsal; without one nothing is measured by itself.
    void begin(double speed, bool simulated, const std::optional<HandSetup>& hand = {});
    void end();
    /// A shift of this order that stopped before all was pressed.
    [[nodiscard]] const std::optional<KeptShift>& kept() const { return kept_; }
    /// Goes on with it.
    void go_on();
    /// Loads of the order as it is now that the shift lacks: replacements, mostly.
    [[nodiscard]] int waiting() const;
    void take_in();
    [[nodiscard]] bool running() const { return shift_.has_value(); }
    [[nodiscard]] const Shift& shift() const { return *shift_; }
    [[nodiscard]] double now() const;
    [[nodiscard]] ShiftRecorder& recorder() { return *recorder_; }
    /// Whether the presses are simulated ones.
    [[nodiscard]] bool rehearses() const { return simulated_; }
    /// Whether all simulated presses that were started answer.
    [[nodiscard]] bool connected() const;

    void next();
    void skip();
    void again();
    void pause();
    void report(PressFault fault, std::size_t part = 0);
    /// What to try after this trial, one figure changed in each.
    [[nodiscard]] std::vector<NextTry> tries_for(const HeldRun& held) const;
    /// The trial again, with this recipe for all that waits for it. Not while something lies under heat.
    void try_again(const std::string& trial, const NextTry& with);
    /// What waits for it is pressed by the same figures.
    void go_on_knowingly(const std::string& trial);
    /// Asks a simulated press to fail, "overheats" and the like; "none" mends it.
    void trouble(int machine, const QString& which);
    /// Pulls the line to a press out.
    void cut_line(int machine);
    /// Puts it in again.
    void connect_line(int machine);

    /// What there is to say: a press's fault, or why the card waits.
    [[nodiscard]] QString says() const;

signals:
    void ticked();
    void card_changed();
    void counted_down();  ///< a count came to its end

private:
    struct Line {
        std::unique_ptr<QProcess> process;
        QString socket;
        std::unique_ptr<PressLine> line;
        double set = 0, read_at = -1e9, heard_at = 0;
        bool closed = false, cut = false;
        int closed_task = -1;
    };
    void begin_on(PressPlan plan, double speed, bool simulated, const ShiftRecord* from = nullptr, std::string id = {});
    void look_for_kept();
    [[nodiscard]] QString kept_path(const std::string& name) const;
    [[nodiscard]] std::string kept_name() const;
    void keep();
    void tick();
    void talk(int machine);
    void plan_anew();
    /// The order's plan with trials that this shift has passed still loads of their own, as it began.
    void with_plan_as_begun(const std::vector<std::string>& trials, std::function<void(PressPlan)> then);
    void keep_trial(const Load& load, TrialResult result);
    Workroom& room_;
    ShiftRecorder* recorder_;
    std::optional<HandSetup> hand_;
    std::string id_;         ///< of the shift
    double card_since_ = 0;  ///< that the card stands there
    std::optional<Shift> shift_;
    std::vector<Line> lines_;
    std::unique_ptr<QTemporaryDir> sockets_;
    QElapsedTimer clock_;
    QTimer timer_;
    double speed_ = 1, stopped_at_ = -1, lost_ = 0;
    bool planning_ = false, simulated_ = false;
    std::size_t counting_ = 0;
    std::optional<Act> shown_;  ///< the card as whoever presses has seen it
    int shift_number_ = 0;
    std::optional<KeptShift> kept_;
    std::string looked_for_;  ///< the order, by the name of its shift's file, that kept_ is of
    std::string kept_as_;     ///< the running shift
    std::string order_;       ///< that the shift began on, by name: another may be opened meanwhile
    bool said_unkept_ = false;
    QThreadPool keeper_;  ///< one thread: what is kept is written in its order
};

}  // namespace orthema::app

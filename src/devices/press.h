// Heat presses, ovens and wrap presses behind one interface: a line protocol (docs/press-protocol.md) over a local socket.
// What ships is simulated: a plate that lags, drops when it is loaded, recovers, drifts, and fails on request.
#pragma once

#include <memory>
#include <optional>
#include <string>
#include <vector>

#include "core/base/result.h"

namespace orthema {

/// The plate of a simulated press. Method: first-order lag of plate and sensor; the controller switches the heater by
/// the sensor within a band of half a degree; a load is a heat sink of its own that the plate warms.
class PressModel {
public:
    enum class Trouble { none, overheats, never_reaches, drifts, power_lost, silent };

    explicit PressModel(double heat_rate = 20, double cool_rate = 4) : heat_(heat_rate / 60), cool_(cool_rate / 60) {}
    /// Answers one line of the protocol; nothing while it is told to be silent.
    std::optional<std::string> answer(const std::string& line);
    /// Lets time pass, seconds.
    void pass(double seconds);
    [[nodiscard]] double plate() const { return plate_; }
    [[nodiscard]] double asked() const { return asked_; }
    [[nodiscard]] bool closed() const { return closed_; }

private:
    double heat_, cool_;  ///< °C a second
    double plate_ = 20, sensor_ = 20, asked_ = 20, load_ = 20, mass_ = 0, closed_for_ = 0, drift_ = 0;
    bool closed_ = false, heating_ = false;
    std::string pressure_ = "medium";
    Trouble trouble_ = Trouble::none;
    void step(double dt);
};

/// What a press says when it is asked to read.
struct PressAnswer {
    double celsius = 0, asked = 0;
    bool closed = false;
    double closed_for = 0;
};
/// "READING 148.7 150.0 closed 12.3"; nothing for other lines.
std::optional<PressAnswer> reading_from(const std::string& line);

/// One end of a line to a press. Never blocks.
class PressLine {
public:
    virtual ~PressLine() = default;
    virtual bool send(const std::string& line) = 0;
    virtual std::optional<std::string> receive() = 0;
    [[nodiscard]] virtual bool alive() const = 0;
};

/// Connects to a press's local socket; the sentence where nobody listens there.
Result<std::unique_ptr<PressLine>> connect_press(const std::string& socket_path);

/// Listens on a local socket and serves one model, `speed` times as fast as the clock, until told to end by the line
/// BYE or by `stop`. For the program that ships and for tests.
Result<Done> serve_press(const std::string& socket_path, PressModel& model, double speed, const bool& stop);

}  // namespace orthema

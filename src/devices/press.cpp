#include "devices/press.h"

#include <algorithm>
#include <cmath>
#include <cstdio>
#include <sstream>

namespace orthema {

namespace {

constexpr double room = 20, hottest = 240, sensor_lag = 4, to_load = 12;  // °C, s
constexpr std::size_t most_line = 200;

std::string number(double v) {
    char text[32];
    std::snprintf(text, sizeof text, "%.1f", v);
    return text;
}

}  // namespace

std::optional<std::string> PressModel::answer(const std::string& line) {
    if (trouble_ == Trouble::power_lost && line.rfind("FAULT", 0) != 0) return std::nullopt;
    if (line.size() > most_line) return "ERROR the line is too long";
    std::istringstream in(line);
    std::string word;
    in >> word;
    if (word == "FAULT") {
        std::string which;
        in >> which;
        const std::pair<const char*, Trouble> known[] = {
            {"none", Trouble::none},     {"overheats", Trouble::overheats},   {"never-reaches", Trouble::never_reaches},
            {"drifts", Trouble::drifts}, {"power-lost", Trouble::power_lost}, {"silent", Trouble::silent}};
        for (const auto& [name, trouble] : known)
            if (which == name) {
                trouble_ = trouble;
                drift_ = 0;
                return "OK";
            }
        return "ERROR no such fault";
    }
    if (trouble_ == Trouble::silent) return std::nullopt;
    if (word == "HELLO") return "PRESS 1";
    if (word == "SET") {
        double celsius = 0;
        if (!(in >> celsius) || !(celsius >= 0 && celsius <= hottest)) return "ERROR SET takes 0 to 240 degrees";
        asked_ = celsius;
        return "OK";
    }
    if (word == "PRESSURE") {
        std::string p;
        in >> p;
        if (p != "light" && p != "medium" && p != "firm" && p != "heavy") return "ERROR PRESSURE takes light, medium, firm or heavy";
        pressure_ = p;
        return "OK";
    }
    if (word == "LOAD") {
        double mass = 0;
        if (!(in >> mass) || !(mass >= 0 && mass <= 20)) return "ERROR LOAD takes 0 to 20";
        mass_ = mass;
        load_ = room;
        return "OK";
    }
    if (word == "CLOSE") {
        if (closed_) return "ERROR it is closed";
        closed_ = true;
        closed_for_ = 0;
        return "OK";
    }
    if (word == "OPEN") {
        closed_ = false;
        return "OK";
    }
    if (word == "READ")
        return "READING " + number(sensor_) + " " + number(asked_) + (closed_ ? " closed " : " open ") + number(closed_for_);
    return "ERROR no such word";
}

void PressModel::step(double dt) {
    const double aim = asked_ + (trouble_ == Trouble::drifts ? drift_ : 0);
    if (trouble_ == Trouble::drifts) drift_ += 0.15 * dt;
    if (trouble_ == Trouble::power_lost)
        heating_ = false;
    else if (trouble_ == Trouble::overheats)
        heating_ = true;
    else if (sensor_ > aim + 0.25)
        heating_ = false;
    else if (sensor_ < aim - 0.25)
        heating_ = true;
    // an empty plate cools at its rate near 150 °C, in proportion to what it is above the room
    const double loss = cool_ * std::max(0.0, plate_ - room) / 130;
    double gain = heating_ ? heat_ + loss : 0;
    if (trouble_ == Trouble::never_reaches) gain = std::min(gain, cool_ * std::max(0.0, 0.75 * asked_ - room) / 130);
    plate_ += (gain - loss) * dt;
    if (closed_ && mass_ > 0) {  // a cold load takes heat out of it
        const double flow = (plate_ - load_) / to_load * dt;
        load_ += flow;
        plate_ -= flow * mass_ * 0.05;
    }
    plate_ = std::clamp(plate_, room, hottest + 40);
    sensor_ += (plate_ - sensor_) / sensor_lag * dt;
    if (closed_) closed_for_ += dt;
}

void PressModel::pass(double seconds) {
    while (seconds > 0) {
        const double dt = std::min(0.2, seconds);
        step(dt);
        seconds -= dt;
    }
}

std::optional<PressAnswer> reading_from(const std::string& line) {
    std::istringstream in(line);
    std::string word, how;
    PressAnswer out;
    if (!(in >> word >> out.celsius >> out.asked >> how >> out.closed_for) || word != "READING") return std::nullopt;
    out.closed = how == "closed";
    return out;
}

}  // namespace orthema

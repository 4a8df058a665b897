// orthema-press: a simulated heat press, oven or wrap press on a local socket. Speaks docs/press-protocol.md.
#include <cstdio>
#include <string>

#include <CLI/CLI.hpp>

#include "devices/press.h"

int main(int argc, char** argv) {
    CLI::App app{"a simulated heat press on a local socket"};
    app.set_version_flag("--version", std::string("orthema-press ") + ORTHEMA_VERSION);
    std::string socket;
    double heat_rate = 20, cool_rate = 4, speed = 1;
    app.add_option("socket", socket, "path of the socket to listen on")->required();
    app.add_option("--heat-rate", heat_rate, "degrees C a minute")->check(CLI::Range(0.1, 1000.0));
    app.add_option("--cool-rate", cool_rate, "degrees C a minute, near 150")->check(CLI::Range(0.1, 1000.0));
    app.add_option("--speed", speed, "times as fast as the clock")->check(CLI::Range(0.1, 100000.0));
    CLI11_PARSE(app, argc, argv);
    orthema::PressModel model(heat_rate, cool_rate);
    const bool stop = false;
    const auto done = orthema::serve_press(socket, model, speed, stop);
    if (!done) std::fprintf(stderr, "%s\n", done.sentence().c_str());
    return done ? 0 : 1;
}

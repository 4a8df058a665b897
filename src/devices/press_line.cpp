// The local socket under the press protocol, at both ends. POSIX only.
#include <fcntl.h>
#include <poll.h>
#include <sys/socket.h>
#include <sys/stat.h>
#include <sys/un.h>
#include <unistd.h>

#include <cerrno>
#include <chrono>
#include <cstring>

#include "devices/press.h"

namespace orthema {

namespace {

constexpr std::size_t most_waiting = 1 << 16;  ///< bytes of one line that never ends

bool address_of(const std::string& path, sockaddr_un& address) {
    address = {};
    address.sun_family = AF_UNIX;
    if (path.size() + 1 > sizeof address.sun_path) return false;
    std::memcpy(address.sun_path, path.c_str(), path.size() + 1);
    return true;
}

/// Whole lines out of what has come; false when the other end is gone.
bool take_in(int fd, std::string& waiting) {
    char bytes[512];
    for (;;) {
        const ssize_t n = ::read(fd, bytes, sizeof bytes);
        if (n > 0) {
            waiting.append(bytes, static_cast<std::size_t>(n));
            if (waiting.size() > most_waiting) return false;
            continue;
        }
        if (n == 0) return false;
        return errno == EAGAIN || errno == EWOULDBLOCK || errno == EINTR;
    }
}

std::optional<std::string> first_line(std::string& waiting) {
    const std::size_t end = waiting.find('\n');
    if (end == std::string::npos) return std::nullopt;
    std::string line = waiting.substr(0, end);
    waiting.erase(0, end + 1);
    if (!line.empty() && line.back() == '\r') line.pop_back();
    return line;
}

bool put_out(int fd, const std::string& line) {
    const std::string bytes = line + "\n";
    return ::send(fd, bytes.data(), bytes.size(), MSG_NOSIGNAL | MSG_DONTWAIT) == static_cast<ssize_t>(bytes.size());
}

class SocketLine : public PressLine {
public:
    explicit SocketLine(int fd) : fd_(fd) {}
    ~SocketLine() override { ::close(fd_); }
    SocketLine(const SocketLine&) = delete;
    SocketLine& operator=(const SocketLine&) = delete;
    bool send(const std::string& line) override {
        if (alive_ && !put_out(fd_, line)) alive_ = false;
        return alive_;
    }
    std::optional<std::string> receive() override {
        if (alive_ && !take_in(fd_, waiting_)) alive_ = false;
        return first_line(waiting_);
    }
    [[nodiscard]] bool alive() const override { return alive_; }

private:
    int fd_;
    bool alive_ = true;
    std::string waiting_;
};

}  // namespace

Result<std::unique_ptr<PressLine>> connect_press(const std::string& path) {
    sockaddr_un address{};
    if (!address_of(path, address)) return Error{"The press's socket has too long a path: choose a shorter one."};
    const int fd = ::socket(AF_UNIX, SOCK_STREAM | SOCK_NONBLOCK | SOCK_CLOEXEC, 0);
    if (fd < 0) return Error{"No line to a press could be opened."};
    if (::connect(fd, reinterpret_cast<const sockaddr*>(&address), sizeof address) != 0) {
        ::close(fd);
        return Error{"No press answers on that line: switch it on, then connect again."};
    }
    return std::unique_ptr<PressLine>(std::make_unique<SocketLine>(fd));
}

Result<Done> serve_press(const std::string& path, PressModel& model, double speed, const bool& stop) {
    sockaddr_un address{};
    if (!address_of(path, address)) return Error{"The socket's path is too long."};
    // a socket that a press left behind gives way, anything else does not
    struct stat lying {};
    if (::lstat(path.c_str(), &lying) == 0) {
        if (!S_ISSOCK(lying.st_mode)) return Error{"“{path}” is no socket: it stays as it is.", {{"path", path}}};
        ::unlink(path.c_str());
    }
    const int listening = ::socket(AF_UNIX, SOCK_STREAM | SOCK_NONBLOCK | SOCK_CLOEXEC, 0);
    // nobody can connect before listen(): by then it is the user's alone
    if (listening < 0 || ::bind(listening, reinterpret_cast<const sockaddr*>(&address), sizeof address) != 0 ||
        ::chmod(path.c_str(), S_IRUSR | S_IWUSR) != 0 || ::listen(listening, 4) != 0) {
        if (listening >= 0) ::close(listening);
        return Error{"The socket could not be made there: {why}.", {{"why", std::string(std::strerror(errno))}}};
    }
    int client = -1;
    std::string waiting;
    auto then = std::chrono::steady_clock::now();
    bool over = false;
    while (!over && !stop) {
        pollfd at[2] = {{listening, POLLIN, 0}, {client, POLLIN, 0}};
        ::poll(at, client >= 0 ? 2 : 1, 20);
        const auto now = std::chrono::steady_clock::now();
        model.pass(std::chrono::duration<double>(now - then).count() * speed);
        then = now;
        if (at[0].revents != 0) {
            const int next = ::accept4(listening, nullptr, nullptr, SOCK_NONBLOCK | SOCK_CLOEXEC);
            if (next >= 0) {  // the newest caller has the line
                if (client >= 0) ::close(client);
                client = next;
                waiting.clear();
            }
            continue;
        }
        if (client < 0 || at[1].revents == 0) continue;
        bool there = take_in(client, waiting);
        while (auto line = first_line(waiting)) {
            if (*line == "BYE") over = true;
            if (const auto answer = model.answer(*line)) there = put_out(client, *answer) && there;
        }
        if (!there) {
            ::close(client);
            client = -1;
        }
    }
    if (client >= 0) ::close(client);
    ::close(listening);
    ::unlink(path.c_str());
    return Done{};
}

}  // namespace orthema

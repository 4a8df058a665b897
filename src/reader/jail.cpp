#include <fcntl.h>
#include <linux/audit.h>
#include <linux/filter.h>
#include <linux/landlock.h>
#include <linux/seccomp.h>
#include <sys/prctl.h>
#include <sys/resource.h>
#include <sys/syscall.h>
#include <sys/time.h>
#include <unistd.h>

#include <algorithm>
#include <array>
#include <cmath>
#include <cstddef>

#include "core/base/sanitized.h"
#include "reader/reader.h"

namespace orthema::reader {

namespace {

#if defined(__x86_64__)
constexpr std::uint32_t machine = AUDIT_ARCH_X86_64;
#elif defined(__aarch64__)
constexpr std::uint32_t machine = AUDIT_ARCH_AARCH64;
#else
constexpr std::uint32_t machine = 0;
#endif

/// No file is made, written or renamed by its path; what is open already stays.
void no_writing() {
    landlock_ruleset_attr rules{};
    rules.handled_access_fs = LANDLOCK_ACCESS_FS_WRITE_FILE | LANDLOCK_ACCESS_FS_EXECUTE | LANDLOCK_ACCESS_FS_REMOVE_DIR |
                              LANDLOCK_ACCESS_FS_REMOVE_FILE | LANDLOCK_ACCESS_FS_MAKE_CHAR | LANDLOCK_ACCESS_FS_MAKE_DIR |
                              LANDLOCK_ACCESS_FS_MAKE_REG | LANDLOCK_ACCESS_FS_MAKE_SOCK | LANDLOCK_ACCESS_FS_MAKE_FIFO |
                              LANDLOCK_ACCESS_FS_MAKE_BLOCK | LANDLOCK_ACCESS_FS_MAKE_SYM;
    const auto handle = static_cast<int>(::syscall(SYS_landlock_create_ruleset, &rules, sizeof rules, 0));
    if (handle < 0) return;  // a kernel without it
    (void)::syscall(SYS_landlock_restrict_self, handle, 0);
    ::close(handle);
}

/// No network, no other program, no hand on another process.
void no_calls() {
    if (machine == 0) return;
    constexpr std::array<std::uint32_t, 9> never = {SYS_socket,   SYS_connect, SYS_bind,       SYS_listen,           SYS_execve,
                                                    SYS_execveat, SYS_ptrace,  SYS_pidfd_open, SYS_process_vm_writev};
    std::array<sock_filter, 6 + 2 * never.size()> code{};
    std::size_t n = 0;
    const auto load = [&](std::size_t offset) { code[n++] = BPF_STMT(BPF_LD | BPF_W | BPF_ABS, static_cast<std::uint32_t>(offset)); };
    load(offsetof(seccomp_data, arch));
    code[n++] = BPF_JUMP(BPF_JMP | BPF_JEQ | BPF_K, machine, 1, 0);
    code[n++] = BPF_STMT(BPF_RET | BPF_K, SECCOMP_RET_ALLOW);  // another machine's numbers: said nothing about
    load(offsetof(seccomp_data, nr));
    for (const std::uint32_t call : never) {
        code[n++] = BPF_JUMP(BPF_JMP | BPF_JEQ | BPF_K, call, 0, 1);
        code[n++] = BPF_STMT(BPF_RET | BPF_K, SECCOMP_RET_ERRNO | EPERM);
    }
    code[n++] = BPF_STMT(BPF_RET | BPF_K, SECCOMP_RET_ALLOW);
    const sock_fprog program{static_cast<unsigned short>(n), code.data()};
    (void)::prctl(PR_SET_SECCOMP, SECCOMP_MODE_FILTER, &program);
}

}  // namespace

void jail(std::uint64_t memory) {
    const rlimit none{0, 0};
    (void)::setrlimit(RLIMIT_CORE, &none);
    if (!sanitized) {  // the sanitizer's own maps are larger than any machine
        const rlimit space{memory, memory};
        (void)::setrlimit(RLIMIT_AS, &space);
    }
    if (::prctl(PR_SET_NO_NEW_PRIVS, 1, 0, 0, 0) != 0) return;
    no_writing();
    no_calls();
}

void allow_seconds(double seconds) {
    rusage used{};
    ::getrusage(RUSAGE_SELF, &used);
    const double so_far = static_cast<double>(used.ru_utime.tv_sec + used.ru_stime.tv_sec) + 1;
    rlimit now{};
    ::getrlimit(RLIMIT_CPU, &now);
    now.rlim_cur = std::min(now.rlim_max, static_cast<rlim_t>(std::ceil(so_far + seconds * (sanitized ? 20 : 1))));
    (void)::setrlimit(RLIMIT_CPU, &now);
}

}  // namespace orthema::reader

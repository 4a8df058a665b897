// Content hashes against the system's own tool.
#include "files/art_file.h"
#include "support/support.h"

namespace orthema {
namespace TESTED {

TEST(Hash, AgreesWithSha256sum) {
    const test::Folder folder;
    for (const std::size_t size : {0u, 1u, 55u, 56u, 63u, 64u, 65u, 1000u, 100000u}) {
        std::string bytes(size, '\0');
        for (std::size_t i = 0; i < size; ++i) bytes[i] = static_cast<char>(i * 131 + size);
        test::spill(folder / "f", bytes);
        EXPECT_EQ(content_hash(bytes), test::run("sha256sum '" + (folder / "f") + "' | cut -d' ' -f1 | tr -d '\\n'").out) << size;
    }
}

}  // namespace TESTED
}  // namespace orthema

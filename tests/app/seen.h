// What a user sees of a window: words that are cut off, covered, or out of it.
#pragma once

#include <QWidget>

#include <string>
#include <vector>

namespace orthema::test {

/// One sentence for each fault of what is visible in `top`: labels, buttons, fields, boxes and tables whose words do not fit,
/// widgets out of the window or under another, and the words that canvases draw.
std::vector<std::string> seen_troubles(QWidget& top);

}  // namespace orthema::test

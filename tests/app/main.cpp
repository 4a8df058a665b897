// The window tests' program: one application for all, offscreen.
#include <gtest/gtest.h>

#include <QApplication>

#include "app/widgets/theme.h"

int main(int argc, char** argv) {
    ::testing::InitGoogleTest(&argc, argv);
    QApplication application(argc, argv);
    orthema::app::apply_theme(application);
    return RUN_ALL_TESTS();
}

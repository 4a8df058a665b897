// About: the version, and under which terms what is shipped may be used.
#pragma once

#include <QDialog>

namespace orthema::app {

class About : public QDialog {
    Q_OBJECT
public:
    explicit About(QWidget* parent);
};

}  // namespace orthema::app

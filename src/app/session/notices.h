// Notices: sentences for the top of the bench, with what can be done about them.
#pragma once

#include <QObject>
#include <QString>

#include <functional>

namespace orthema::app {

struct Notice {
    QString text;
    bool bad = false;
    QString action;
    std::function<void()> act;
};

class Notices : public QObject {
    Q_OBJECT
public:
    using QObject::QObject;
    void say(const Notice& notice) { emit noticed(notice); }
    void say(const QString& text) { emit noticed({text, false, {}, {}}); }
    void complain(const QString& text) { emit noticed({text, true, {}, {}}); }

signals:
    void noticed(const Notice& notice);
};

}  // namespace orthema::app

// Notices: sentences for the top of the bench, with what can be done about them.
#pragma once

#include <QObject>
#include <QString>

#include <functional>

#include "app/widgets/speech.h"

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
    /// What came of it: the sentence where it went well, else why not.
    void tell(const Result<Done>& done, const QString& well) { done ? say(well) : complain(done.error()); }
    void complain(const QString& text) { emit noticed({text, true, {}, {}}); }
    void complain(const Error& why) { complain(refusal(why)); }

signals:
    void noticed(const Notice& notice);
};

}  // namespace orthema::app

// Lessons: what the records propose, what was taken, declined or only noted; each with what can be done about it.
#pragma once

#include <QScrollArea>

#include "app/session/workroom.h"

class QLineEdit;
class QVBoxLayout;

namespace orthema::app {

class LessonList : public QScrollArea {
    Q_OBJECT
public:
    explicit LessonList(Workroom& room);
    /// `about`: what a new remark is tied to.
    void show_lessons(const std::vector<Correction>& proposals, const RecordFilter& about);

private:
    QWidget* card(const QString& title, const QString& reason, const QString& state);
    Workroom& room_;
    QVBoxLayout* rows_;
    QLineEdit* remark_;
    std::vector<QWidget*> cards_;
    QString shown_;
    RecordFilter about_;
};

}  // namespace orthema::app

// Bench: one stage of the work. The shell puts it in the middle and its figures on the right.
#pragma once

#include <QWidget>

#include "app/widgets/speech.h"
#include "app/session/workroom.h"

namespace orthema::app {

class Bench : public QWidget {
    Q_OBJECT
public:
    Bench(Workroom& room, QString stage, QWidget* parent = nullptr) : QWidget(parent), room_(room), stage_(std::move(stage)) {}
    [[nodiscard]] const QString& stage() const { return stage_; }
    /// The panel for the right side; owned by the shell's layout.
    [[nodiscard]] virtual QWidget* figures() = 0;
    /// Shows the workroom as it is now; called when it changed and this bench is seen.
    virtual void refresh() = 0;
    /// What takes the keys when the bench is shown.
    [[nodiscard]] virtual QWidget* first_focus() = 0;
    /// A few words under the stage's name on the job line.
    [[nodiscard]] virtual QString word() const = 0;
    /// What this bench is for, for F1.
    [[nodiscard]] virtual QString help() const = 0;
    /// Takes pictures that were dropped while it is seen; false: they are art.
    virtual bool take_pictures(const QStringList& /*paths*/) { return false; }
    /// Goes to what a finding is about.
    virtual void go(const Subject& about) { select_subject(room_, about); }

    static void select_subject(Workroom& room, const Subject& about);

signals:
    /// Asks the shell for another bench.
    void wanted(const QString& stage);

protected:
    /// How this stage stands as far as findings go that are about one thing only.
    template <class About>
    [[nodiscard]] Standing standing_where(About is_about) const {
        Findings own;
        for (const Finding& f : room_.findings())
            if (is_about(f.about)) own.push_back(f);
        return standing_of(own, stage_.toStdString());
    }
    Workroom& room_;

private:
    QString stage_;
};

}  // namespace orthema::app

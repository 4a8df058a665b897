// Jobs page: whose the order is; of a gang each job with its due time and its share of film, blanks and work, another brought in, one
// taken out, and copies of one thing that are not alike.
#pragma once

#include "app/session/workroom.h"
#include "app/widgets/figures.h"

namespace orthema::app {

class JobsPage : public FigurePanel {
    Q_OBJECT
public:
    explicit JobsPage(Workroom& room);
    void refresh();
    /// Asks for another order to bring in.
    void bring_in();

private:
    /// The job that is shown: the one looked at, else the first.
    [[nodiscard]] const Job* job() const;
    void change(const QString& what, const std::function<void(Job&)>& how);
    void take_out();
    Workroom& room_;
    FigurePanel *alone_, *gang_, *unlike_;
    ValueField *customer_, *note_, *name_, *job_customer_, *due_, *due_at_, *job_note_;
    QComboBox* which_;
    QLabel *pieces_, *film_, *blanks_, *work_, *total_, *together_, *unlike_says_;
    QPushButton *take_out_, *first_, *second_;
};

}  // namespace orthema::app

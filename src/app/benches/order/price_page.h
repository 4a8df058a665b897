// Price page: what a piece of the chosen line costs and why, what the customer pays, and what it would be otherwise. Papers page: what the
// customer approved, what is promised, and the papers that go out.
#pragma once

#include "app/session/workroom.h"
#include "app/widgets/figures.h"
#include "core/costing/price.h"

namespace orthema::app {

class PricePage : public FigurePanel {
    Q_OBJECT
public:
    explicit PricePage(Workroom& room);
    void refresh();

private:
    void change(const QString& what, const std::function<void(Pricing&)>& how);
    void work_out();
    void show_otherwise(bool on);
    Workroom& room_;
    Segments* way_;
    FigurePanel *steps_part_, *piece_;
    NumberField *margin_, *on_blank_, *print_, *set_up_, *tax_;
    ValueField* steps_;
    QComboBox* location_;
    QLabel *line_, *film_, *ink_, *blank_, *work_, *set_up_share_, *spoilage_, *costs_, *sold_, *order_costs_, *order_sold_, *otherwise_;
    QPushButton* out_;
    bool working_ = false;
};

class PapersPage : public FigurePanel {
    Q_OBJECT
public:
    explicit PapersPage(Workroom& room);
    void refresh();

private:
    enum class Which { quote, ticket, approval };
    void write(Which which);
    Workroom& room_;
    ValueField *promise_, *by_;
    QLabel* state_;
    QPushButton *approve_, *take_back_;
    std::string shown_for_;  ///< the job whose approval was shown last
};

}  // namespace orthema::app

// The figures beside the making: which method and why, its layers, how it is split, its shape on the blank, and the shop's
// own data for methods, media and jigs.
#pragma once

#include "app/widgets/figures.h"
#include "app/session/workroom.h"
#include "core/transfers/choices.h"

class QCheckBox;
class QComboBox;

namespace orthema::app {

class MakingPages : public QWidget {
    Q_OBJECT
public:
    explicit MakingPages(Workroom& room, QWidget* parent = nullptr);
    void refresh();
    void show_page(int page);

private:
    void build_method();
    void build_layers();
    void build_split();
    void build_shape();
    void build_shop();
    void refresh_method(const Decoration& d);
    void refresh_layers(const Decoration& d);
    void refresh_split(const Decoration& d, const Made* made);
    void refresh_shape(const Decoration& d, const Made* made);
    void refresh_snips(const Decoration& d, const Made* made);
    void refresh_shop();
    void change(const QString& what, const std::function<void(Making&)>& how);
    void change_layer(const QString& what, const std::function<void(Layer&)>& how);
    template <class T>
    void change_item(const QString& what, SharedList<T> Order::*list, QComboBox* box, const std::function<void(T&)>& how);
    LengthField* making_length(FigurePanel* page, const QString& name, const QString& why, const QString& what, Length Making::*which,
                               double least, double most);
    QCheckBox* making_flag(FigurePanel* page, const QString& name, const QString& why, bool Making::*which);
    Segments* making_join(FigurePanel* page, const QString& name, Join Making::*which);
    static constexpr int page_count = 5;
    Workroom& room_;
    Segments* page_;
    FigurePanel* pages_[page_count];
    // method
    QComboBox* medium_;
    std::vector<QPushButton*> method_buttons_;
    std::vector<QLabel*> method_says_;
    std::vector<std::string> method_media_;
    // layers
    QComboBox *layer_, *layer_medium_;
    ValueField* layer_name_;
    LengthField *layer_grow_, *fill_holes_, *overlap_, *bridge_, *white_choke_;
    QPushButton *layer_out_, *backing_, *apart_;
    NumberField *colours_, *tolerance_, *shrink_;
    Segments* corner_;
    QCheckBox *bridges_, *white_;
    // split
    QCheckBox* split_;
    Segments* split_join_;
    LengthField* split_lap_;
    QLabel *parts_, *ink_cut_, *straight_, *heat_;
    QPushButton* least_;
    // shape
    FigurePanel *wrap_part_, *cover_part_, *sides_part_, *jig_part_, *dome_part_;
    Segments* wrap_join_;
    LengthField *wrap_lap_, *seam_at_, *bleed_, *misplaced_, *fold_, *snip_gap_;
    QLabel *sheet_size_, *proof_, *jig_says_, *nothing_, *snips_say_;
    QCheckBox *right_round_, *cover_, *two_sided_, *snip_;
    QComboBox* jig_;
    // shop
    Segments *kind_, *mirror_, *reads_, *handling_, *shape_, *press_kind_;
    FigurePanel* kinds_[4];
    QComboBox *shop_method_, *shop_medium_, *shop_jig_, *shop_press_, *medium_method_;
    std::vector<std::function<void()>> shop_shown_;  ///< each shows its field anew
};

}  // namespace orthema::app

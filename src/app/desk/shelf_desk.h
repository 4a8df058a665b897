// The desk's page of the shelf: finished transfers in their bags.
#pragma once

#include "app/desk/bin_page.h"

namespace orthema::app {

class ShelfDesk : public BinPage {
    Q_OBJECT
public:
    explicit ShelfDesk(Workroom& room);
    void refresh() override;

private:
    void show_chosen() override;
    void print_labels(const QString& path);
    QLabel *width_, *printed_, *until_, *from_, *held_, *note_;
    QPushButton* labels_;
};

}  // namespace orthema::app

// The desk's page of the stock: blanks along their runs, rolls, sheets, powder and ink, counted in and held against what orders want.
#pragma once

#include <map>
#include <set>

#include "app/desk/bin_page.h"

class QComboBox;

namespace orthema::app {

class StockDesk : public BinPage {
    Q_OBJECT
public:
    explicit StockDesk(Workroom& room);
    void refresh() override;
    /// A code was scanned, or a name typed: the bin is chosen, and counted where that is wanted. False where none has it.
    bool found(const QString& text, bool count_one);

private:
    void show_chosen() override;
    [[nodiscard]] std::vector<BinRow> rows() const;
    /// What the open orders want of it, and lack.
    void note_wanted(Bin& bin) const;
    [[nodiscard]] BinRow blanks_row(const BlankStyle& style, const std::string& colour) const;
    void begin_counting(const StockEntry& entry);
    void new_roll();
    void new_supply();
    FigurePanel *supply_, *names_;
    QLabel *wanted_, *spoiled_says_, *note_;
    ValueField *code_, *name_, *uses_;
    QComboBox *style_, *colour_, *medium_;
    std::vector<std::pair<std::string, std::string>> shown_;   ///< runs that are to be counted in, beside those that are
    std::set<std::pair<std::string, std::string>> uncounted_;  ///< runs that orders want of and nobody counts
    std::map<std::string, double> wanted_of_, lacking_of_;
    std::map<std::string, QStringList> wanted_by_;
};

}  // namespace orthema::app

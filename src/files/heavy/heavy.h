// What needs the large libraries: reading pictures, writing pages, packing orders. It lives in a module of its own that
// is loaded when the first of these is wanted, since loading them takes longer than showing the window.
#pragma once

#include "files/list.h"
#include "files/order_file.h"
#include "files/page_export.h"

namespace orthema::heavy {

Result<LoadedArtPtr> load_art(const Bytes& bytes, const std::string& name);
Result<OrderPackage> open_order(const std::string& path);
Result<Done> save_order(const std::string& path, const Order& order, const ArtBytes& art);
Result<Done> write_pdf(const std::string& path, const std::vector<const Drawing*>& pages, const LoadedArtById& art,
                       const std::string& title, const Task& task);
Result<Done> write_png(const std::string& path, const Drawing& page, const LoadedArtById& art, double dpi, const Task& task);
Result<Done> write_tiff(const std::string& path, const Drawing& page, const LoadedArtById& art, double dpi, const Task& task);
Result<Done> draw_rows(const Drawing& page, const LoadedArtById& art, double dpi, const PixelRows& take, const Task& task);
Result<std::vector<SheetRows>> read_spreadsheet(const std::string& bytes);

/// The module's one door.
struct Door {
    decltype(&heavy::load_art) load_art;
    decltype(&heavy::open_order) open_order;
    decltype(&heavy::save_order) save_order;
    decltype(&heavy::write_pdf) write_pdf;
    decltype(&heavy::write_png) write_png;
    decltype(&heavy::write_tiff) write_tiff;
    decltype(&heavy::draw_rows) draw_rows;
    decltype(&heavy::read_spreadsheet) read_spreadsheet;
};

}  // namespace orthema::heavy

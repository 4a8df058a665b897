// Small pictures of what was measured, kept with the order: some hundred kilobytes each, to be looked at again.
#pragma once

#include <QPushButton>

#include <optional>

#include "app/photos/taped_photo.h"
#include "app/session/workroom.h"

namespace orthema::app {

/// The kept one that was made of this photograph's picture; null: none.
const KeptPhoto* kept_of(const Order& order, const TapedPhoto& photo, const std::string& record);
/// Keeps it, or takes it out of the order where it is kept: one step that can be undone.
void keep_or_leave(Workroom& room, const TapedPhoto& photo, const std::string& record);
/// One of the order's, to be shown; nothing where its picture did not come along.
std::optional<TapedPhoto> to_look_at(Workroom& room, const KeptPhoto& kept);

/// The button that keeps it, or takes it out again.
QPushButton* keep_button();
/// What it says of this photograph; dead where there is none to keep.
void show_on(QPushButton& button, const Order& order, const TapedPhoto* photo, const std::string& record);

}  // namespace orthema::app

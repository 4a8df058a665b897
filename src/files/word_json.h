// A word picture in an order file.
#pragma once

#include "core/artwork/word_picture.h"
#include "files/json_in.h"

namespace orthema {

json to_json(const WordPicture& word);
WordPicture read_word_picture(const In& in);

}  // namespace orthema

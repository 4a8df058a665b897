// The order on disk: a ZIP with order.json and the art by content hash, or the same unpacked in a folder.
#pragma once

#include <string>

#include "core/base/result.h"
#include "core/fitting/fit.h"
#include "core/pipeline/work.h"
#include "core/records/lessons.h"
#include "files/art_file.h"

namespace orthema {

struct OrderPackage {
    Order order;
    ArtBytes art;
    OrderRecords records = {};
    std::optional<Error> records_fault = {};  ///< why those that are there cannot be read; the order can
};

/// An id for a new job, that no other order has.
std::string new_job_id();

/// Opens a container or a folder. An order of before jobs had ids gets one from its content, the same each time. Refuses with a sentence:
/// paths that climb out, more than 2,000 entries, more than 1 GiB unpacked, art whose bytes do not match its hash, missing art, anything
/// truncated.
Result<OrderPackage> open_order(const std::string& path);

/// Writes the container atomically. Art that no longer belongs to the order is left out.
Result<Done> save_order(const std::string& path, const Order& order, const ArtBytes& art, const OrderRecords& records = {});

/// Where the autosave of an order file lies.
std::string autosave_path(const std::string& path);

/// All pictures of an order, read and looked at; those that fail become findings.
LoadedArtById load_all_art(const Order& order, const ArtBytes& bytes, Findings* findings);
/// That an art could not be read.
Finding unreadable(const Art& art, const Error& why);
ArtFactsById facts_of(const LoadedArtById& art);

/// All pictures of an order as something to draw and as what is known about them.
struct ReadArt {
    LoadedArtById art;
    Shared<KnownArt> known;
};
ReadArt read_all_art(const Order& order, const ArtBytes& bytes);

/// Orders as one (core/pipeline/gang.h) with all that came with them, and the pictures read.
struct GangedPackage {
    OrderPackage package;
    ReadArt pictures;
};
Result<GangedPackage> gang_packages(const std::vector<OrderPackage>& packages, const std::string& id, const std::string& name);

/// Enters a picture that has been read into an order and its bytes, named after its file; the new art's id.
std::string enrol_art(Order& order, ArtBytes& bytes, const LoadedArt& loaded, const Bytes& file, const std::string& file_name);

/// Reads a picture and enters it; the new art's id, or the sentence that says why not.
Result<std::string> add_art(Order& order, ArtBytes& bytes, const Bytes& file, const std::string& file_name);

}  // namespace orthema

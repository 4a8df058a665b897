// Shop library: what the shop owns, kept on disk and read when the program starts.
#pragma once

#include <QObject>

#include <memory>
#include <mutex>

#include "app/session/document.h"
#include "app/session/jobs.h"
#include "app/session/notices.h"
#include "files/library.h"

namespace orthema::app {

class ShopLibrary : public QObject {
    Q_OBJECT
public:
    ShopLibrary(Document& document, Jobs& jobs, Notices& notices, QObject* parent = nullptr)
        : QObject(parent), document_(document), jobs_(jobs), notices_(notices), content_(starting_library()) {}
    [[nodiscard]] const LibraryContent& content() const { return content_; }
    /// Of its database, once it was opened.
    [[nodiscard]] const QString& path() const { return path_; }
    /// Reads it on a thread.
    void open_in(const QString& data_folder);
    /// Adds or replaces by id; says what it kept, or the sentence.
    void keep(const LibraryContent& content, const QString& sentence = {});
    void keep(const BlankStyle& style) { keep(LibraryContent{{style}, {}, {}, {}, {}}); }
    /// What wordings of lists mean, from now on.
    void learn(const ShopWords& words);
    void export_to(const QString& path);
    void import_from(const QString& path);

signals:
    void opened();
    void changed();

private:
    void use_copy(const QString& data_folder, const QString& path, const QString& copy);
    Document& document_;
    Jobs& jobs_;
    Notices& notices_;
    LibraryContent content_;
    QString path_;
    std::unique_ptr<Library> shop_;
    std::mutex guard_;
};

}  // namespace orthema::app

#include "app/window/manual.h"

#include <QFile>
#include <QFileInfo>
#include <QKeyEvent>
#include <QListWidget>
#include <QRegularExpression>
#include <QTextBrowser>

#include "app/widgets/speech.h"
#include "app/widgets/figures.h"
#include "files/program_part.h"

namespace orthema::app {

namespace {

/// Pictures are shown as wide as the page has room for.
class Pages : public QTextBrowser {
public:
    using QTextBrowser::QTextBrowser;

protected:
    QVariant loadResource(int type, const QUrl& name) override {
        QVariant out = QTextBrowser::loadResource(type, name);
        if (type != QTextDocument::ImageResource) return out;
        QImage picture = out.value<QImage>();
        if (picture.isNull()) picture.loadFromData(out.toByteArray());
        constexpr int side_by_side = 660;
        return picture.width() > side_by_side ? picture.scaledToWidth(side_by_side, Qt::SmoothTransformation) : picture;
    }
};

QString read(const QString& path) {
    QFile file(path);
    return file.open(QIODevice::ReadOnly) ? QString::fromUtf8(file.readAll()) : QString();
}

}  // namespace

Manual* Manual::found(QWidget* parent) {
    const QString index = qt(program_part("manual/index.md"));
    return QFileInfo::exists(index) ? new Manual(QFileInfo(index).absolutePath(), parent) : nullptr;
}

Manual::Manual(QString folder, QWidget* parent) : QWidget(parent, Qt::Window), folder_(std::move(folder)) {
    setObjectName(QStringLiteral("Manual"));
    setWindowTitle(tr("Orthema: the manual"));
    resize(940, 720);
    setStyleSheet(QStringLiteral("#Manual { background:#F4F1EA; }"));
    auto* row = new QHBoxLayout(this);
    row->setContentsMargins(12, 12, 12, 12);
    auto* left = new QVBoxLayout;
    find_ = new QLineEdit;
    find_->setObjectName(QStringLiteral("Find in the manual"));
    find_->setAccessibleName(tr("Find in the manual"));
    find_->setPlaceholderText(tr("find (Enter: the next)"));
    find_->setFixedWidth(210);
    left->addWidget(find_);
    pages_ = new QListWidget;
    pages_->setObjectName(QStringLiteral("Pages of the manual"));
    pages_->setAccessibleName(tr("Pages of the manual"));
    pages_->setFixedWidth(210);
    pages_->setWordWrap(true);
    pages_->setSpacing(3);
    left->addWidget(pages_, 1);
    row->addLayout(left);
    text_ = new Pages;
    text_->setObjectName(QStringLiteral("Text of the manual"));
    text_->setAccessibleName(tr("Text of the manual"));
    text_->setFrameShape(QFrame::NoFrame);
    text_->document()->setDocumentMargin(18);
    text_->setSearchPaths({folder_});
    row->addWidget(text_, 1);
    // the pages as the first of them lists them
    static const QRegularExpression link(QStringLiteral("\\[([^\\]]+)\\]\\(([a-z-]+)\\.md\\)"));
    const auto add = [this](const QString& title, const QString& name) {
        auto* item = new QListWidgetItem(title, pages_);
        item->setData(Qt::UserRole, name);
    };
    add(tr("The manual"), QStringLiteral("index"));
    for (auto it = link.globalMatch(read(folder_ + QStringLiteral("/index.md"))); it.hasNext();) {
        const QRegularExpressionMatch m = it.next();
        add(m.captured(1), m.captured(2));
    }
    connect(pages_, &QListWidget::currentItemChanged, this, [this](const QListWidgetItem* item) {
        if (item == nullptr) return;
        const QUrl page = QUrl::fromLocalFile(folder_ + QLatin1Char('/') + item->data(Qt::UserRole).toString() + QStringLiteral(".md"));
        if (text_->source() != page) text_->setSource(page, QTextDocument::MarkdownResource);
    });
    connect(text_, &QTextBrowser::sourceChanged, this, [this](const QUrl& page) {
        const QString name = QFileInfo(page.path()).completeBaseName();
        for (int i = 0; i < pages_->count(); ++i)
            if (pages_->item(i)->data(Qt::UserRole).toString() == name) pages_->setCurrentRow(i);
    });
    connect(find_, &QLineEdit::returnPressed, this, &Manual::find_next);
    pages_->setCurrentRow(0);
}

void Manual::show_page(const QString& name) {
    for (int i = 0; i < pages_->count(); ++i)
        if (pages_->item(i)->data(Qt::UserRole).toString() == name) pages_->setCurrentRow(i);
    show();
    raise();
    activateWindow();
}

/// On from where it stands, over all pages and round to here.
void Manual::find_next() {
    const QString word = find_->text().trimmed();
    if (word.isEmpty() || text_->find(word)) return;
    for (int k = 1; k <= pages_->count(); ++k) {
        const int row = (pages_->currentRow() + k) % pages_->count();
        const QString name = pages_->item(row)->data(Qt::UserRole).toString();
        if (!read(folder_ + QLatin1Char('/') + name + QStringLiteral(".md")).contains(word, Qt::CaseInsensitive)) continue;
        pages_->setCurrentRow(row);
        text_->moveCursor(QTextCursor::Start);
        if (text_->find(word)) return;
    }
}

void Manual::keyPressEvent(QKeyEvent* event) {
    if (event->key() == Qt::Key_Escape) return hide();
    if (event->matches(QKeySequence::Back)) return text_->backward();
    QWidget::keyPressEvent(event);
}

}  // namespace orthema::app

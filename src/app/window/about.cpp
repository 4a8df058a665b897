#include "app/window/about.h"

#include <QFile>
#include <QIcon>
#include <QLabel>
#include <QPlainTextEdit>

#include "app/widgets/speech.h"
#include "app/widgets/figures.h"

namespace orthema::app {

About::About(QWidget* parent) : QDialog(parent) {
    setObjectName(QStringLiteral("About"));
    setWindowTitle(tr("About Orthema"));
    resize(620, 460);
    auto* rows = new QVBoxLayout(this);
    rows->setContentsMargins(20, 18, 20, 16);
    rows->setSpacing(8);
    auto* head = new QHBoxLayout;
    auto* mark = new QLabel;
    mark->setPixmap(QIcon(QStringLiteral(":/icons/orthema.png")).pixmap(56, 56));
    head->addWidget(mark);
    auto* says = new QVBoxLayout;
    says->addWidget(head_label(tr("Orthema %1").arg(QStringLiteral(ORTHEMA_VERSION))));
    auto* what = new QLabel(tr("Sizes, places, nests and schedules the transfers of an order, and learns from how they were pressed."));
    what->setWordWrap(true);
    says->addWidget(what);
    head->addSpacing(10);
    head->addLayout(says, 1);
    rows->addLayout(head);
    auto* terms =
        new QLabel(tr("You may use, pass on and change it under the GNU General Public License, version 3 or later; it comes without any "
                      "warranty. The typefaces inside it are under the Open Font License. It works with Qt %1, cairo, pango, librsvg, "
                      "poppler, SQLite, libzip and others, each under the terms that come with it. Heat, powder, fumes and presses can "
                      "hurt: local rules, the supplier's sheet and trained practice come before anything that is said here.")
                       .arg(QLatin1String(qVersion())));
    terms->setWordWrap(true);
    rows->addWidget(terms);
    auto* whole = new QPlainTextEdit;
    whole->setObjectName(QStringLiteral("Terms"));
    whole->setAccessibleName(tr("Terms of what is shipped"));
    whole->setReadOnly(true);
    QFile text(QStringLiteral(":/terms/copyright"));
    if (text.open(QIODevice::ReadOnly)) whole->setPlainText(QString::fromUtf8(text.readAll()));
    rows->addWidget(whole, 1);
    auto* foot = new QHBoxLayout;
    foot->addStretch(1);
    auto* close = push(tr("Close"), tr("Back to the bench (Escape)"), true);
    foot->addWidget(close);
    rows->addLayout(foot);
    connect(close, &QPushButton::clicked, this, &QDialog::accept);
    close->setFocus();
}

}  // namespace orthema::app

#include "app/widgets/typed.h"

#include <QDate>
#include <QLocale>
#include <QRegularExpression>

namespace orthema::app {

std::optional<QString> iso_date(const QString& text) {
    const QString t = text.trimmed();
    if (t.isEmpty()) return QString();
    for (const char* form : {"yyyy-MM-dd", "d MMMM yyyy", "d MMM yyyy", "d.M.yyyy", "d/M/yyyy"}) {
        const QDate d = QLocale::c().toDate(t, QString::fromLatin1(form));
        if (d.isValid() && d.year() > 1999) return d.toString(Qt::ISODate);
    }
    return std::nullopt;
}

std::optional<int> minutes_from(const QString& text) {
    static const QRegularExpression form(QStringLiteral("^\\s*(\\d{1,3})(?:[:.](\\d{2}))?\\s*$"));
    const auto m = form.match(text);
    if (!m.hasMatch()) return std::nullopt;
    const int hours = m.captured(1).toInt(), minutes = m.captured(2).isEmpty() ? 0 : m.captured(2).toInt();
    if (hours > 72 || minutes > 59) return std::nullopt;
    return hours * 60 + minutes;
}

QString clock_words(int minutes) { return QStringLiteral("%1:%2").arg(minutes / 60).arg(minutes % 60, 2, 10, QLatin1Char('0')); }

}  // namespace orthema::app

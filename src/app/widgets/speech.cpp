#include "app/widgets/speech.h"

#include <QCoreApplication>
#include <QLocale>
#include <QTranslator>

#include "core/base/units.h"

namespace orthema::app {

namespace {

const Language* now = nullptr;

/// Qt asks it for every tr(); in which class a sentence stands is no matter.
class Table : public QTranslator {
public:
    using QTranslator::QTranslator;
    [[nodiscard]] QString translate(const char*, const char* english, const char*, int) const override {
        if (now == nullptr || english == nullptr) return {};
        const auto at = now->sentences.find(std::string_view(english));
        return at == now->sentences.end() ? QString() : QString::fromStdString(at->second);
    }
    [[nodiscard]] bool isEmpty() const override { return now == nullptr; }
};

}  // namespace

void speak(const Language* language) {
    now = language;
    QLocale::setDefault(language == nullptr ? QLocale(QLocale::English) : QLocale(QString::fromStdString(language->code)));
    static Table* table = nullptr;
    if (table == nullptr && QCoreApplication::instance() != nullptr) table = new Table(QCoreApplication::instance());
    if (table == nullptr) return;
    QCoreApplication::removeTranslator(table);
    if (now != nullptr) QCoreApplication::installTranslator(table);
}

const Language* language_spoken() { return now; }

QString tr(const char* english) { return QCoreApplication::translate("", english); }
std::string spoken(std::string_view english) { return std::string(said_in(now, english)); }
QString refusal(const Error& why) { return QString::fromStdString(why.said_to(reading_in())); }
QString said(std::string_view english) { return QString::fromStdString(spoken(english)); }

QString within(const QString& name) { return now != nullptr && now->code == "de" ? name : name.toLower(); }

QString figure(double value, int digits) { return QString::fromStdString(figure_text(value, digits, reading_in())); }
QString fixed(double value, int digits) { return QString::fromStdString(fixed_text(value, digits, reading_in())); }

QString day_text(const QDate& day, bool with_year) {
    // TRANSLATORS: how a day is written, for Qt
    return QLocale().toString(day, with_year ? tr("d MMMM yyyy") : tr("d MMMM"));
}

QString moment_text(const QDateTime& at) { return day_text(at.date()) + at.time().toString(QStringLiteral(", HH:mm")); }

}  // namespace orthema::app

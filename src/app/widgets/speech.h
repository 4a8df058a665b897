// The window's words in the language of whoever sits before it. Every sentence stands in the source in English, within tr(), spoken() or
// noted(); what it becomes stands in resources/languages.
#pragma once

#include <QDateTime>
#include <QString>

#include <string>
#include <string_view>

#include "core/base/language.h"
#include "core/base/result.h"

namespace orthema::app {

/// From now on in this language; null: English. Said once, before there is a window.
void speak(const Language* language);
/// The language that is spoken; null: English.
const Language* language_spoken();

/// A sentence of the window. Within a widget Qt's own function of that name stands before it and does the same.
QString tr(const char* english);
/// The same for what is drawn, and of what the core has a name for, such as a measure or a location. Not for what people typed.
std::string spoken(std::string_view english);
/// Marks words of a table, which are said when they are shown.
constexpr const char* noted(const char* english) { return english; }

/// What is drawn, for a widget.
QString said(std::string_view english);
/// A name as it stands within a sentence: in small letters, except where a language gives its nouns capitals.
QString within(const QString& name);
/// Why something could not be done; lengths in mm.
QString refusal(const Error& why);

/// A figure as it is written here, without trailing zeros.
QString figure(double value, int digits);
/// With as many decimals as asked for.
QString fixed(double value, int digits);
/// "13 August", "13 August 2027".
QString day_text(const QDate& day, bool with_year = false);
/// "13 August, 14:05".
QString moment_text(const QDateTime& at);
/// Of an order read in this unit by whoever sits here.
inline Reading reading_in(Unit unit = Unit::mm) { return {unit, language_spoken()}; }

}  // namespace orthema::app

#include "reader/pdf_tidy.h"

#include <qpdf/QPDF.hh>
#include <qpdf/QPDFWriter.hh>

namespace orthema::reader {

std::string tidied(const std::string& pdf) {
    QPDF document;
    document.setSuppressWarnings(true);
    document.processMemoryFile("pages", pdf.data(), pdf.size());
    // the same pages are the same file, whenever they are written
    if (document.getTrailer().hasKey("/Info")) document.getTrailer().getKey("/Info").removeKey("/CreationDate");
    QPDFWriter writer(document);
    writer.setOutputMemory();
    writer.setDeterministicID(true);
    writer.setObjectStreamMode(qpdf_o_generate);
    writer.write();
    const auto buffer = writer.getBufferSharedPointer();
    return {reinterpret_cast<const char*>(buffer->getBuffer()), buffer->getSize()};
}

}  // namespace orthema::reader

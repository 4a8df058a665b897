#include "files/heavy/pdf_tidy.h"

#include <qpdf/QPDF.hh>
#include <qpdf/QPDFWriter.hh>

namespace orthema::heavy {

std::string tidied(const std::string& pdf) {
    QPDF document;
    document.setSuppressWarnings(true);
    document.processMemoryFile("pages", pdf.data(), pdf.size());
    QPDFWriter writer(document);
    writer.setOutputMemory();
    writer.setDeterministicID(true);
    writer.setObjectStreamMode(qpdf_o_generate);
    writer.write();
    const auto buffer = writer.getBufferSharedPointer();
    return {reinterpret_cast<const char*>(buffer->getBuffer()), buffer->getSize()};
}

}  // namespace orthema::heavy

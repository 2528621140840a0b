using System.Text;
using Daxlin.Core.Posting.Layouts;

namespace Daxlin.Service.Posting.Files;

/// <summary>The encodings of text files. One that lacks a letter says so, and writes nothing in its place.</summary>
internal static class Encodings
{
    public static Encoding Of(TextEncoding encoding) => encoding switch
    {
        TextEncoding.Utf8Mark => new UTF8Encoding(encoderShouldEmitUTF8Identifier: true),
        TextEncoding.Utf16 => Encoding.Unicode,
        TextEncoding.Windows1252 => Strict(1252),
        TextEncoding.Iso88591 => Strict(28591),
        TextEncoding.Ascii => Strict(20127),
        _ => new UTF8Encoding(encoderShouldEmitUTF8Identifier: false),
    };

    private static Encoding Strict(int codePage) =>
        (CodePagesEncodingProvider.Instance.GetEncoding(codePage, EncoderFallback.ExceptionFallback, DecoderFallback.ExceptionFallback)
            ?? Encoding.GetEncoding(codePage, EncoderFallback.ExceptionFallback, DecoderFallback.ExceptionFallback));
}

using System.Text;
using Daxlin.Core.Posting.Layouts;

namespace Daxlin.Service.Posting.Files;

/// <summary>Writes records of text into bytes, and says which letter has no place there.</summary>
internal abstract class TextFileWriter : LayoutWriter
{
    protected TextFileWriter(FileRule file)
    {
        File = file;
        Encoding = Encodings.Of(file.Encoding);
        Text = new StreamWriter(Bytes, Encoding, leaveOpen: true) { NewLine = file.LineEnd };
    }

    public sealed override Encoding Encoding { get; }

    protected FileRule File { get; }

    protected StreamWriter Text { get; }

    /// <exception cref="UnwritableException">The text has a letter that the encoding does not have.</exception>
    protected void RefuseStrangers(LayoutTable table, LayoutColumn column, string text)
    {
        if (Ascii.IsValid(text) || File.Encoding is TextEncoding.Utf8 or TextEncoding.Utf8Mark or TextEncoding.Utf16)
            return;
        foreach (var letter in text.EnumerateRunes())
        {
            try
            {
                Encoding.GetByteCount(letter.ToString());
            }
            catch (EncoderFallbackException)
            {
                throw new UnwritableException(table.Name, column.Heading, $"“{letter}” in “{text}” has no place in {Encoding.WebName}; utf-8 has all letters.");
            }
        }
    }

    public override byte[] End(IReadOnlyCollection<ProvedSum> sums)
    {
        Text.Dispose();
        return Bytes.ToArray();
    }

    public override void Dispose()
    {
        Text.Dispose();
        base.Dispose();
    }
}

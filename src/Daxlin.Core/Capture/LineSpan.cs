using Daxlin.Core.Pages;

namespace Daxlin.Core.Capture;

/// <summary>Finds the words behind a run of characters of a line's text.</summary>
internal static class LineSpan
{
    /// <summary>The characters from <paramref name="start"/> on of <see cref="TextLine.Text"/>, with the box that they stand in.</summary>
    public static Printed Of(TextLine line, int start, int length)
    {
        var (offset, box) = (0, (Box?)null);
        foreach (var word in line.Words)
        {
            var from = Math.Max(start - offset, 0);
            var to = Math.Min(start + length - offset, word.Text.Length);
            if (from < to)
            {
                var part = word.BoxOf(from, to - from);
                box = box?.Union(part) ?? part;
            }
            offset += word.Text.Length + 1;
        }
        return new Printed(line.Text.Substring(start, length).Trim(), box is { } place ? [new PlaceOnPage(line.Page, place)] : []);
    }
}

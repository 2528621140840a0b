using System.Text;

namespace Daxlin.Core.Sources;

/// <summary>A stranger's words as one line that can be shown and stored anywhere.</summary>
public static class PlainLine
{
    /// <remarks>Control characters are blanks, half a letter (a surrogate alone) is <c>\uFFFD</c>: databases refuse both, and one message would hold up all that follow it.</remarks>
    /// <param name="longest">In letters; what is longer ends on an ellipsis.</param>
    public static string Of(string text, int longest)
    {
        var line = new StringBuilder();
        foreach (var rune in text.EnumerateRunes())
        {
            if (line.Length + rune.Utf16SequenceLength > longest - 1)
                return line.ToString().TrimEnd() + "…";
            line.Append(Rune.IsControl(rune) ? " " : rune.ToString());
        }
        return line.ToString().Trim();
    }
}

using System.Text;
using Daxlin.Core.Templates;

namespace Daxlin.Core.Posting.Coding;

/// <summary>By what later lines of a vendor are known to be like earlier ones.</summary>
public static class LikeLines
{
    private const int Longest = 200;

    /// <summary>The item code, or the words of the description without their figures: "Diesel 12.03.2026" is like "Diesel 14.03.2026".</summary>
    /// <returns>Empty for a line without either.</returns>
    public static string KeyOf(IReadOnlyDictionary<string, string> cells)
    {
        if (cells.TryGetValue(TradeNames.ItemCode, out var code) && code.Length > 0)
            return Cut("code " + code.ToUpperInvariant());
        var words = new StringBuilder();
        foreach (var letter in cells.TryGetValue(TradeNames.Description, out var description) ? description : "")
        {
            if (char.IsLetter(letter))
                words.Append(char.ToUpperInvariant(letter));
            else if (words.Length > 0 && words[^1] != ' ')
                words.Append(' ');
        }
        return words.Length == 0 ? "" : Cut("text " + words.ToString().TrimEnd());
    }

    private static string Cut(string key) => key.Length <= Longest ? key : key[..Longest];
}

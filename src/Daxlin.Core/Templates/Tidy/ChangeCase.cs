using System.Globalization;

namespace Daxlin.Core.Templates.Tidy;

/// <summary>Puts a text into capitals, into small letters, or each word with a capital.</summary>
public sealed record ChangeCase(LetterCase To) : TidyStep
{
    public override string Name => "case";

    public override string Apply(string text) => To switch
    {
        LetterCase.Upper => text.ToUpperInvariant(),
        LetterCase.Lower => text.ToLowerInvariant(),
        _ => CultureInfo.InvariantCulture.TextInfo.ToTitleCase(text.ToLowerInvariant()),
    };
}

/// <summary>How letters are written.</summary>
public enum LetterCase
{
    Upper,
    Lower,
    Title,
}

namespace Daxlin.Core.Values;

/// <summary>What kinds have in common, and the words that templates and the interface name them by.</summary>
public static class ValueKinds
{
    private static readonly (string Word, ValueKind Kind)[] Named =
    [
        ("text", ValueKind.Text), ("whole", ValueKind.Whole), ("number", ValueKind.Number), ("price", ValueKind.Price),
        ("money", ValueKind.Money), ("percent", ValueKind.Percent), ("date", ValueKind.Date), ("iban", ValueKind.Iban),
        ("currency", ValueKind.Currency), ("yesNo", ValueKind.YesNo),
    ];

    /// <summary>Each kind with its word.</summary>
    public static ReadOnlySpan<(string Word, ValueKind Kind)> Words => Named;

    /// <summary>Says that a value of the kind is a figure: a quantity, an amount, a rate.</summary>
    public static bool IsFigure(this ValueKind kind) =>
        kind is ValueKind.Whole or ValueKind.Number or ValueKind.Price or ValueKind.Money or ValueKind.Percent;

    /// <summary>The word for a kind: yesNo.</summary>
    public static string Word(this ValueKind kind) => Array.Find(Named, one => one.Kind == kind).Word;

    /// <summary>The kind of a word; null if it is none.</summary>
    public static ValueKind? Find(string word) => Array.FindIndex(Named, one => one.Word == word) is >= 0 and var index ? Named[index].Kind : null;
}

namespace Daxlin.Reading;

/// <summary>A document cannot be read; the message is a sentence for a clerk.</summary>
public class UnreadableException : Exception
{
    public UnreadableException(string code, string message, Exception? inner = null) : base(message, inner) => Code = code;

    /// <summary>A stable word for programs: not-a-pdf, encrypted, damaged, no-text, too-large.</summary>
    public string Code { get; }
}

namespace Daxlin.Service.Sources;

/// <summary>A file or a message that came from a source and is not taken in yet.</summary>
/// <param name="Key">What it is known by in its source, so that it is taken once.</param>
/// <param name="From">Whom a message is from; empty for a file.</param>
/// <param name="Sha256">Under which its bytes are kept; empty for one that is too large.</param>
/// <param name="Batch">The name of the batch that its documents go into.</param>
/// <param name="Stamp">A file's size and time; empty for a message.</param>
/// <param name="IsMessage">Whether it is a message as a mail server hands it out.</param>
internal sealed record ComingItem(string Source, string Key, string Name, string From, string Sha256, long Size, string Batch, string Stamp, bool IsMessage)
{
    /// <summary>How it is answered; the default answers nobody.</summary>
    public ComingAnswer Answer { get; init; } = ComingAnswer.Nobody;
}

/// <summary>Whether and whom an answer to a message goes to.</summary>
/// <param name="To">Empty for nobody.</param>
/// <param name="MessageId">Of the message.</param>
/// <param name="Says">Why nobody is answered, where somebody could have been.</param>
internal sealed record ComingAnswer(string To, string MessageId, string Says)
{
    public static ComingAnswer Nobody { get; } = new("", "", "");
}

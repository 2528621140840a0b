namespace Daxlin.Service.Work;

/// <summary>The process that worked on a document died: of the document, or of something else on this machine.</summary>
public sealed class ReaderDiedException(Exception inner) : Exception("The reading process ended without an answer.", inner)
{
    /// <summary>What a document is called on which process after process died.</summary>
    public const string Code = "damaged";

    /// <summary>The same for a person.</summary>
    public const string Sentence = "The document is built so that reading it never ends or takes all memory; it was set aside.";
}

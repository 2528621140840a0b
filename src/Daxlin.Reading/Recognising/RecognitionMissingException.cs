namespace Daxlin.Reading.Recognising;

/// <summary>What recognition needs is not on this machine; the message is a sentence for a clerk.</summary>
public sealed class RecognitionMissingException(string message) : Exception(message)
{
    /// <summary>What programs call it by.</summary>
    public const string Code = "recognition-missing";
}

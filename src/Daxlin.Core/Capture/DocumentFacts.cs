namespace Daxlin.Core.Capture;

/// <summary>What is known of a document without reading it.</summary>
/// <param name="FileName">As received, without any folder.</param>
/// <param name="BatchName">The batch that it was taken in with.</param>
/// <param name="ReceivedOn">The day it was received, in UTC; null if unknown.</param>
public sealed record DocumentFacts(string FileName, string BatchName, DateOnly? ReceivedOn)
{
    public static DocumentFacts Unknown { get; } = new("", "", null);
}

namespace Daxlin.Core.Pages;

/// <summary>Where a cue stands whose words are set one over the other, on two lines or more.</summary>
/// <param name="First">Its words on the first line.</param>
/// <param name="Last">Its words on the last line.</param>
/// <param name="Box">Around all of them.</param>
public readonly record struct StackedCue(CuePlace First, CuePlace Last, Box Box);

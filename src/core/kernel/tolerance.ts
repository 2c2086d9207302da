/**
 * Every tolerance of the core, each with its unit and the reason for its size. A comparison anywhere
 * else takes its limit from here.
 */

/** mm. Two cut lengths or panel sizes closer than this are one size: below what a saw stop repeats. */
export const LENGTH_TOLERANCE_MM = 0.1;

/** Compared on the slope vector s: tan of 0.05 degrees, below what a saw's angle scale repeats. */
export const SLOPE_TOLERANCE = Math.tan((0.05 * Math.PI) / 180);

/** mm. Points nearer than this are the same point; far below a drawn length, far above double noise at 100 m. */
export const POINT_TOLERANCE_MM = 1e-6;

/** mm. What two formulas for one corner may differ by, and still give one corner: far below what a saw repeats. */
export const SAME_PLACE_MM = POINT_TOLERANCE_MM * 1000;

/** No unit (sine of an angle). Directions that differ by less are parallel; 1e-9 rad moves 0.01 micron in 10 m. */
export const PARALLEL_TOLERANCE = 1e-9;

/** mm. Default limit under which two rows that differ in length are called near twins. */
export const NEAR_TWIN_LENGTH_MM = 5;

/** Degrees. Default limit under which two rows that differ in an end angle are called near twins. */
export const NEAR_TWIN_ANGLE_DEG = 1;

/** Degrees from square. Steeper ends are warned of: common practice, few saws swing further. */
export const STEEP_END_DEG = 60;

/** Degrees. A 60 degree end computed in doubles may come out as 60.0000000001 and is still fine. */
export const STEEP_END_SLACK_DEG = 1e-6;

/** mm. A length that is less is nothing: far below what is cut, and still a thousand steps of the grid. */
export const LEAST_LENGTH_MM = 0.001;
/** What is said of a length below it. */
export const BELOW_LEAST_LENGTH = "is less than a thousandth of a millimetre";

/** mm. Lengths above this are refused as absurd: a hundred metres is longer than any stock or shop. */
export const GREATEST_LENGTH_MM = 100_000;

"""Every word of the trade that the pages use, in one sentence each."""

WORDS = {
    "nose": "The cushion's edge: the mark is where your line of aim, carried straight on, crosses it.",
    "sight": "The inlay on the rail cap, behind the nose: sighting through it reads a different number than the nose.",
    "natural": "The pure mirror line of the ball's centre, with no physics: where you would aim if cushions were perfect.",
    "shoot this": "The path the ball takes when you aim at the red mark, played out with your speed and side.",
    "window": "How far your mark may be wrong, either way, and the ball is still hit.",
    "mirror": "The target reflected in the cushion noses: aim straight at the image.",
    "ball size": "A ball turns one radius before the nose, so the true mirror lies that much inside it.",
    "cushion": "What rubber and cloth do to a plain ball at this speed, compared with a perfect mirror.",
    "side": "Spin to the left or right of centre: running side lengthens the rebound, reverse side shortens it.",
    "compression": "Rubber pressed in: the harder the ball meets the rail the deeper it sinks, and the dent's wall turns it "
    "off steeper, so shorter.",
    "running": "Side that opens the rebound off the rail it meets: the ball comes off longer.",
    "reverse": "Side that holds the rebound up: the ball comes off shorter, steeper to the rail.",
    "height": "Above centre is follow, below is draw; while the ball still slides, follow bends it long, draw short.",
    "speed": "In table lengths: how many times a ball struck this hard runs the length of this table. A lag is 2.",
    "tip": "How far the tip is moved from the ball's centre; about one and a half tips is the miscue limit.",
    "squirt": "Struck with side, the ball leaves a little to the other side of the cue's line; a lighter shaft end, less of it.",
    "count": "A school's way to find the mark by counting diamonds instead of drawing.",
    "M2": "Doubling: count the diamonds from the target to the cue ball, shoot that number where every diamond counts two.",
    "M3": "Halving: count the diamonds from the target to the cue ball and aim half as many from the target.",
    "short": "The ball arrives before the target, measured in the direction it travels.",
    "long": "The ball arrives beyond the target, measured in the direction it travels.",
    "diamond": "One of eight equal steps along a long rail, four along a short one; a segment is a tenth of it.",
    "kick": "Cue ball to a rail, then to the ball.",
    "thickness": "How full the ball is met: full is centre to centre, half ball is half covered, thin is an edge. "
    "Slide to the right to meet its right side.",
    "what follows": "Thin lines: where every ball goes after the first contact. Dashed discs: where they stop.",
    "full": "The cue ball's centre runs straight at the target's centre; thinner hits pass to one side of it.",
}
